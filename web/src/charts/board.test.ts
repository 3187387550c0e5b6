import { expect, test } from 'vitest';
import {
  clockAt,
  columnsOf,
  firstDayOf,
  firstOf,
  lanesOf,
  letterOf,
  minuteOfDay,
  nowAndNext,
  piecesOf,
  promiseOf,
  span,
  timeAt,
  type BoardBlock,
} from './board';

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

test('people have lanes, also without work, or spindles; then what waits', () => {
  const said = (lanes: { label: string; blocks: unknown[] }[]) => lanes.map((lane) => [lane.label, lane.blocks.length]);
  expect(said(lanesOf(BLOCKS, ['Ada', 'Ben'], null))).toEqual([
    ['Ada', 2],
    ['Ben', 0],
    ['Soaks, dries', 1],
  ]);
  expect(said(lanesOf(BLOCKS, ['Ada', 'Ben'], (id) => `The ${id}`))).toEqual([
    ['The buffer, spindle 1', 1],
    ['The buffer, spindle 2', 1],
    ['Soaks, dries', 1],
  ]);
});

test('neighbours of one job are one piece, and what is too low to hit joins its shorter neighbour', () => {
  const run = (key: number, job: string, from_min: number, to_min: number) => block(key, { job, from_min, to_min });
  const pieces = (blocks: BoardBlock[], least: number) =>
    piecesOf(blocks, (one) => one.job, least).map((piece) => [
      piece.blocks.map((one) => one.key).join(),
      piece.from,
      piece.to,
    ]);
  const day = [
    run(1, 'A', 0, 40),
    run(2, 'A', 40, 70),
    run(3, 'B', 70, 75),
    run(4, 'C', 75, 95),
    run(5, 'A', 200, 205),
  ];
  expect(pieces(day, 0)).toEqual([
    ['1,2', 0, 70],
    ['3', 70, 75],
    ['4', 75, 95],
    ['5', 200, 205], // alone: it is drawn as high as it must be
  ]);
  expect(pieces(day, 22)).toEqual([
    ['1,2', 0, 70],
    ['3,4', 70, 95],
    ['5', 200, 205],
  ]);
  expect(pieces([run(1, 'A', 0, 10), run(2, 'B', 10, 12), run(3, 'C', 12, 90)], 20)).toEqual([['1,2,3', 0, 90]]);
  const many = Array.from({ length: 60 }, (_, at) => run(at, String(at), at, at + 1));
  const drawn = piecesOf(many, (one) => one.job, 22);
  expect(drawn.flatMap((piece) => piece.blocks)).toHaveLength(60);
  for (const [at, piece] of drawn.entries())
    expect((drawn[at + 1]?.from ?? Infinity) - piece.from).toBeGreaterThanOrEqual(22);
});

test('what waits at the same time stands side by side', () => {
  const waits = [block(1, {}), block(2, { from_min: 10, to_min: 20 }), block(3, { from_min: 35, to_min: 40 })];
  expect(columnsOf(waits, 0).map((one) => one.column)).toEqual([0, 1, 0]);
  expect(columnsOf(waits, 30).map((one) => one.column)).toEqual([0, 1, 0]);
  expect(columnsOf(waits, 40).map((one) => one.column)).toEqual([0, 1, 2]);
});

test('the span is whole hours and never shorter than the day', () => {
  expect(span(BLOCKS, 480)).toEqual([0, 480]);
  expect(span([{ from_min: 70, to_min: 495 }], 480)).toEqual([60, 540]);
  expect(span([], 480)).toEqual([0, 480]);
});

test('minutes are times of day, over midnight too', () => {
  expect(clockAt(75, '08:00')).toBe('09:15');
  expect(clockAt(1440, '08:00')).toBe('08:00');
  expect(minuteOfDay('09:15')).toBe(555);
});

test('the first day is today, or an earlier one of which something is left', () => {
  expect(firstDayOf([block(1, { day: 1 })])).toBe(0);
  expect(firstDayOf([block(1, { day: -1 }), block(2, {})])).toBe(-1);
});

test('the first is what begins first, whatever the order', () => {
  expect(firstOf([...BLOCKS].reverse())?.key).toBe('1');
  expect(firstOf([])).toBeNull();
});

test('somebody does what runs, then what comes, and never what is done or a change of the wheel', () => {
  const keys = (done: string[], now: number) =>
    nowAndNext([...BLOCKS, block(9, { kind: 'change' })], 'Ada', done, now).map((one) => one?.key);
  expect(keys([], 10)).toEqual(['1', '2']);
  expect(keys([], 35)).toEqual(['2', undefined]);
  expect(keys(['1'], 10)).toEqual(['2', undefined]);
  expect(keys([], 200)).toEqual(['2', undefined]); // late: it is still to be done
  expect(nowAndNext(BLOCKS, 'Ben', [], 0)).toEqual([null, null]);
});

test('jobs have letters, also the 27th', () => {
  expect([0, 25, 26].map(letterOf)).toEqual(['A', 'Z', 'A2']);
});

test.each([
  [120, '10:00'],
  [1440 + 30, 'day 2, 08:30'],
  [15 * 60 + 59, '23:59'],
  [16 * 60, 'day 2, 00:00'],
])('names the day of a promise where it is not the first: %i', (minute, said) =>
  expect(timeAt(minute, '08:00')).toBe(said),
);

test('names the weekday where the date is known', () => {
  expect(timeAt(1440 + 30, '08:00', '2026-12-01')).toBe('Wed 2 08:30');
  expect(timeAt(30, '08:00', '2026-12-01')).toBe('08:30');
});

test.each([
  [
    { ends_min: 100, due_min: 160, late_min: 0 },
    { kind: 'good', minutes: 60 },
  ],
  [
    { ends_min: 200, due_min: 160, late_min: 40 },
    { kind: 'late', minutes: 40 },
  ],
  [{ ends_min: 200, due_min: null, late_min: 0 }, null],
  [{ ends_min: null, due_min: 160, late_min: 0 }, null],
])('what a job has of its promise: %o', (job, promise) => expect(promiseOf(job)).toEqual(promise));
