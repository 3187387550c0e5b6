import { expect, it } from 'vitest';
import { blank, KINDS, listed, onRack } from './form';

it('asks of each kind no more than its entry takes', () => {
  for (const { id } of KINDS) expect(blank(id, 'Mara')).toMatchObject({ kind: id, by: 'Mara', name: '' });
  expect(Object.keys(blank('material', ''))).not.toContain('cuts');
});

it('reads lists as people write them', () => {
  expect(listed(' P80, P120;P180  30um ')).toEqual(['P80', 'P120', 'P180', '30um']);
  expect(listed(' , ')).toEqual([]);
});

it('puts each grade of a tool on the rack, and nothing of a material', () => {
  expect(onRack({ ...blank('tool', ''), id: 'own-a', grades: ['P80', '30um'] } as never)).toEqual([
    'own-a-p80',
    'own-a-30um',
  ]);
  expect(onRack({ ...blank('tool', ''), id: 'own-a' })).toEqual(['own-a']); // a wheel without grits
  expect(onRack({ ...blank('compound', ''), id: 'own-b' })).toEqual(['own-b']);
  expect(onRack({ ...blank('finish', ''), id: 'own-c' })).toEqual([]);
});
