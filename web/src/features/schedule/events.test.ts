import { expect, test } from 'vitest';
import { eventOf, untilOf } from './events';

test.each([
  ['10:30', '08:00', 150],
  ['07:00', '08:00', 0],
  ['', '08:00', null],
])('counts %s from where the board begins', (clock, begins, minutes) => expect(untilOf(clock, begins)).toBe(minutes));

test('sends only what its kind needs, and nothing before that is chosen', () => {
  expect(eventOf('away', 'One', null)).toEqual({ kind: 'away', person: 'One', until_min: null, times: 2 });
  expect(eventOf('urgent', '7', null)).toEqual({ kind: 'urgent', job: 7, until_min: null, times: 2 });
  expect(eventOf('broken', 'lathe', 90)).toEqual({ kind: 'broken', machine: 'lathe', until_min: 90, times: 2 });
  expect(eventOf('stays', 'One', null)).toBeNull();
  expect(eventOf('longer', '', null)).toBeNull();
});
