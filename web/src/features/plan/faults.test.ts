import { expect, test } from 'vitest';
import type { Fault } from '../../api/client';
import { faultsAt, placeOf } from './faults';

function fault(field: string, about = [field], where = ''): Fault {
  return { field, about, where, message: '', said: { code: 'plain', words: field, values: {} } };
}

const radius = fault('faces[1]', ['faces[1].inside_radius_mm'], 'inside radius');
const depth = fault('faces[0].found.depth_um.likely');
const route = fault('faces[0].wish.lock[0]');

test('a fault stands beside the field that it speaks of', () => {
  expect(faultsAt([radius, depth, route], 'faces[1].inside_radius_mm')).toEqual([radius]);
  expect(faultsAt([radius, depth, route], 'faces[0].found.depth_um')).toEqual([depth]);
  expect(faultsAt([depth], 'faces[0].found.depth')).toEqual([]);
  expect(faultsAt([route], 'faces[0].wish.lock')).toEqual([route]);
});

test('a place is told by the name of the face and the field in words', () => {
  const faces = [{ name: 'rim' }, { name: 'bore' }];
  expect(placeOf(radius, faces)).toBe('bore, inside radius');
  expect(placeOf(fault('title'), faces)).toBe('');
});
