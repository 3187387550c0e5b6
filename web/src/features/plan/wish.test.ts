import { expect, test } from 'vitest';
import { lockTurned, tidied } from './wish';

test('a wish for nothing is none', () => {
  expect(tidied(undefined)).toBeUndefined();
  expect(tidied({ lock: [], route: [] })).toBeUndefined();
  expect(tidied({ start: 'paper-p240' })).toEqual({ start: 'paper-p240', lock: [], leave_out: [], route: [] });
});

test('a lock is turned on and off, and a set route becomes its locks', () => {
  const locked = lockTurned({ lock: [], leave_out: [], route: ['a', 'b'] }, 'b');
  expect(locked).toEqual({ start: undefined, lock: ['b'], leave_out: [], route: [] });
  expect(lockTurned(locked, 'b')).toBeUndefined();
});
