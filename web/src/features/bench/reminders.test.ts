import { expect, test } from 'vitest';
import { reminders, secondsNow, stayShare } from './reminders';

const hand = {
  running: true,
  planned_s: 300,
  more_s: 0,
  on_tool_s: 200,
  change_after_s: 240,
  charged_s: 0,
  recharge_after_s: null,
  rest_after_s: null,
  running_s: 10,
  seconds: 100,
};

test('the clock goes on from the answer of the server, and stands when it stands', () => {
  expect(secondsNow(hand, 12)).toBe(112);
  expect(secondsNow({ ...hand, running: false }, 12)).toBe(100);
});

test('an abrasive is changed after its life, not before', () => {
  expect(reminders(hand, 39, 'disc')).toEqual([]);
  expect(reminders(hand, 40, 'disc').map((one) => one.kind)).toEqual(['change']);
  expect(reminders(hand, 40, 'disc')[0]!.text).toBe('Change the disc: it has worked 4:00');
});

test('time that was added counts', () => {
  const kinds = (more: number) =>
    reminders({ ...hand, change_after_s: null, more_s: more }, 200, 'disc').map((one) => one.kind);
  expect(kinds(0)).toEqual(['time']);
  expect(kinds(60)).toEqual([]);
});

test('a rest counts work since the last pause, a charge since the last one', () => {
  const warm = { ...hand, rest_after_s: 60, change_after_s: null };
  expect(reminders(warm, 49, 'disc')).toEqual([]);
  expect(reminders(warm, 50, 'disc').map((one) => one.kind)).toEqual(['rest']);
  const bar = { ...hand, change_after_s: null, charged_s: 80, recharge_after_s: 90 };
  expect(reminders(bar, 10, 'wheel').map((one) => one.kind)).toEqual(['charge']);
});

test('the stay on one spot begins anew each time, and long stays are not counted', () => {
  expect(stayShare(21, 14)).toBeCloseTo(0.5);
  expect(stayShare(21, null)).toBeNull();
  expect(stayShare(21, 600)).toBeNull();
});
