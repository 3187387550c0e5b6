import { describe, expect, it } from 'vitest';
import { dueGroup, dueSaid, promiseSaid } from './due';

describe('a promise as people say it', () => {
  const now = new Date(2026, 10, 30, 23, 10);
  it.each([
    [new Date(2026, 10, 30, 23, 59), 'today 23:59'],
    [new Date(2026, 11, 1, 0, 5), 'tomorrow 00:05'],
    [new Date(2026, 11, 2, 16, 0), 'Wed 2 Dec 16:00'],
    [new Date(2026, 10, 29, 9, 30), 'Sun 29 Nov 09:30'],
  ])('%s', (due, said) => expect(dueSaid(due, now)).toBe(said));
});

describe('where a job stands in the list', () => {
  const now = new Date(2026, 10, 30, 12, 0);
  it.each([
    [null, 'none'],
    [new Date(2026, 10, 30, 11, 59), 'overdue'],
    [new Date(2026, 10, 30, 23, 59), 'today'],
    [new Date(2026, 11, 6, 23, 59), 'week'],
    [new Date(2026, 11, 7, 0, 1), 'later'],
  ] as const)('%s', (due, group) => expect(dueGroup(due && due.toISOString(), now)).toBe(group));
});

it('says what is left of a promise', () => {
  expect(promiseSaid({ kind: 'good', minutes: 60 })).toBe('60 min to spare');
  expect(promiseSaid({ kind: 'late', minutes: 40 })).toBe('40 min late');
});
