import { expect, test } from 'vitest';
import { aloudOf, MOVES, placeWords, readText, sizeText, works } from './moves';

test('a move is read aloud with its time and its reason', () => {
  expect(aloudOf('lap', 'lap', 190, 'Expect 14 mm.')).toBe('Lap. 3 minutes 10 seconds. Expect 14 mm.');
  expect(aloudOf('lap', 'file', 60, '')).toBe('File. 1 minute');
  expect(aloudOf('stop', 'lap', 0, 'It is on size.')).toBe('Stop. It is on size.');
});

test('a tool works in some moves and not in others', () => {
  const working = (Object.keys(MOVES) as (keyof typeof MOVES)[]).filter(works);
  expect(working).toEqual(['lap', 'short-strokes', 'expand']);
});

test('sizes are told to a tenth of a micrometre or a hundred-thousandth of an inch', () => {
  expect(sizeText(14.00149, 'metric')).toBe('14.0015');
  expect(sizeText(25.4, 'inch')).toBe('1.00000');
  expect(readText(14.00149, 'metric', 3)).toBe('14.001');
  expect(readText(14.00149, 'metric', 0.5)).toBe('14.0015');
  expect(readText(14.00149, 'metric', 10)).toBe('14.00');
  expect(readText(25.36, 'inch', 3)).toBe('0.9984');
});

test('a place is told by where it is along the length', () => {
  expect([-10.5, 0, 2, 10.5].map((z) => placeWords(z, 30))).toEqual([
    'near the left end',
    'in the middle',
    'in the middle',
    'near the right end',
  ]);
});
