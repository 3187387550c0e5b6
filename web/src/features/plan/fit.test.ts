import { expect, test } from 'vitest';
import type { Catalogue, Face } from '../../api/client';
import { directions, heights, readingAt, startFit, withReading } from './fit';

const SHAPES = [
  { id: 'bore', sized_as: 'bore' },
  { id: 'cylinder', sized_as: 'shaft' },
  { id: 'disc', sized_as: null },
] as Catalogue['shapes'];

const face = (shape: Face['shape']) => ({ name: 'bore', shape }) as Face;

test('a size begins with the measures of a bore or a cylinder, and with nothing else', () => {
  expect(startFit(face({ kind: 'bore', diameter_mm: 14, length_mm: 30 }), SHAPES)?.want).toEqual({
    nominal_mm: 14,
    class: 'H7',
  });
  expect(startFit(face({ kind: 'cylinder', diameter_mm: 14, length_mm: 30 }), SHAPES)?.want.class).toBe('g6');
  expect(startFit(face({ kind: 'disc', diameter_mm: 14 }), SHAPES)).toBeUndefined();
  expect(startFit(face({ kind: 'bore', diameter_mm: 14 }), SHAPES)).toBeUndefined();
});

test('a reading is put in, changed and taken out where it was taken', () => {
  const empty = startFit(face({ kind: 'bore', diameter_mm: 14, length_mm: 30 }), SHAPES)!;
  const one = withReading(empty, -10.5, 45, 13.99);
  expect(readingAt(one, -10.5, 45)).toBe(13.99);
  expect(readingAt(one, -10.5, 90)).toBeUndefined();
  const changed = withReading(one, -10.5, 45, 13.98);
  expect(changed.readings).toEqual([{ z_mm: -10.5, phi_deg: 45, mm: 13.98 }]);
  expect(withReading(changed, -10.5, 45, null).readings).toEqual([]);
});

test('heights are those of the places, in order along the length', () => {
  expect(directions([{ phi_deg: 45 }, { phi_deg: 0 }, { phi_deg: 45 }])).toEqual([0, 45]);
  expect(heights([{ z_mm: 0 }, { z_mm: -10.5 }, { z_mm: 10.5 }, { z_mm: 0 }])).toEqual([-10.5, 0, 10.5]);
});
