import { expect, test } from 'vitest';
import { beginsAt, clockAt, firstDayOf, firstOf, nextOf, rowsOf, span, timeAt, whenOf, type BoardBlock } from './board';

const block = (key: number, more: Partial<BoardBlock>): BoardBlock => ({
  key: String(key),
  job: 'Rail collar',
  label: 'felt',
  person: 'Ada',
  machine: null,
  spindle: null,
  from_min: 0,
  to_min: 30,
  day: 0,
  kind: 'work',
  ...more,
});
const BLOCKS = [
  block(1, { machine: 'buffer', spindle: 1 }),
  block(2, { machine: 'buffer', spindle: 2, from_min: 40, to_min: 70 }),
  block(3, { person: null, kind: 'wait', from_min: 70, to_min: 100 }),
];

test('people have rows, also without work, then spindles, then what waits', () => {
  const rows = rowsOf(BLOCKS, ['Ada', 'Ben'], (id) => `The ${id}`);
  expect(rows.map((row) => [row.label, row.blocks.length])).toEqual([
    ['Ada', 2],
    ['Ben', 0],
    ['The buffer, spindle 1', 1],
    ['The buffer, spindle 2', 1],
    ['Soaks, dries', 1],
  ]);
});

test('the span is whole hours and never shorter than the day', () => {
  expect(span(BLOCKS, 480)).toEqual([0, 480]);
  expect(span([{ from_min: 10, to_min: 495 }], 480)).toEqual([0, 540]);
});

test('minutes are times of day, over midnight too', () => {
  expect(clockAt(75, '08:00')).toBe('09:15');
  expect(clockAt(1440, '08:00')).toBe('08:00');
  expect(beginsAt(2, 1)).toBe(1440);
});

test('when something begins is told with its day, unless that is today', () => {
  const tomorrow = block(4, { day: 1, from_min: 1500 });
  expect(whenOf(tomorrow, firstDayOf([tomorrow]), '08:00')).toBe('day 2, 09:00');
  expect(whenOf(tomorrow, firstDayOf([block(5, { day: -1 }), tomorrow]), '08:00')).toBe('day 3, 09:00');
  expect(whenOf(block(6, { from_min: 60 }), 0, '08:00')).toBe('09:00');
});

test('the first is what begins first, whatever the order', () => {
  expect(firstOf([...BLOCKS].reverse())?.key).toBe('1');
  expect(firstOf([])).toBeNull();
});

test('what is next is what runs, then what comes, and never what is done', () => {
  expect(nextOf(BLOCKS, 'Ada', [], 10)?.key).toBe('1');
  expect(nextOf(BLOCKS, 'Ada', [], 35)?.key).toBe('2');
  expect(nextOf(BLOCKS, 'Ada', ['1'], 10)?.key).toBe('2');
  expect(nextOf(BLOCKS, 'Ada', [], 200)?.key).toBe('2'); // late: it is still to be done
  expect(nextOf(BLOCKS, 'Ben', [], 0)).toBeNull();
});

test.each([
  [120, '10:00'],
  [1440 + 30, 'day 2, 08:30'],
  [15 * 60 + 59, '23:59'],
  [16 * 60, 'day 2, 00:00'],
])('names the day of a promise where it is not the first: %i', (minute, said) =>
  expect(timeAt(minute, '08:00')).toBe(said),
);
