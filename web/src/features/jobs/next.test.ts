import { expect, test } from 'vitest';
import type { Board, JobSummary } from '../../api/client';
import { nextSaid } from './next';

const job = { id: 7 } as JobSummary;
const block = (key: string, from_min: number, to_min: number) => ({
  key,
  kind: 'work',
  label: 'P240 flap wheel',
  face: 'rim',
  person: 'Ada',
  from_min,
  to_min,
});
const board = (more: object) =>
  ({
    day: '2026-12-01',
    now_min: 30,
    done: ['a'],
    ids: { a: 7, b: 7, c: 7, x: 8 },
    board: {
      begins: '08:00',
      jobs: [{ id: '7', ends_min: 100, due_min: 160, late_min: 0 }],
      blocks: [block('c', 1500, 1530), block('a', 0, 20), block('b', 20, 50), block('x', 30, 40)],
    },
    ...more,
  }) as unknown as Board;

test('who is at it now, or when it goes on', () => {
  expect(nextSaid(job, board({}))).toBe('Ada: P240 flap wheel, rim, until 08:50');
  expect(nextSaid(job, board({ done: ['a', 'b'] }))).toBe('At Wed 2 09:00: P240 flap wheel, rim');
  expect(nextSaid(job, board({ done: ['a', 'b', 'c'] }))).toBeNull();
  expect(nextSaid(job, null)).toBeNull();
});
