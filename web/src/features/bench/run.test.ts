// @vitest-environment jsdom
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { api, Problem, type Run } from '../../api/client';
import { notices } from '../../ui/notices.svelte';
import { BenchRun } from './run.svelte';

const hand = { piece: 1, face: 'barrel', face_id: 'barrel', route: 0, step: 1 };
const run = (seen: number, more = {}) =>
  ({ id: 3, seen, status: 'open', hand, waiting: [], last: null, ...more }) as unknown as Run;
const tap = vi.spyOn(api, 'tap');
const ask = vi.spyOn(api, 'run');
let open: BenchRun[] = [];
const bench = (given: Run) => {
  const one = new BenchRun(given);
  open.push(one);
  return one;
};

beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
  tap.mockReset();
  ask.mockReset().mockResolvedValue(undefined);
  vi.spyOn(api, 'ahead').mockRejectedValue(new Problem(0, 'away'));
});
afterEach(() => {
  for (const one of open) one.leave();
  open = [];
  vi.useRealTimers();
});

test('a tap says where it was made and what its screen had seen', async () => {
  tap.mockResolvedValue(run(5));
  const one = bench(run(4));
  expect(await one.work('started')).toBe(true);
  const [id, sent] = tap.mock.lastCall!;
  expect([id, sent.after, sent.tap.kind, sent.tap.face, sent.tap.step]).toEqual([3, 4, 'started', 'barrel', 1]);
  expect([one.run.seen, one.waiting]).toEqual([5, []]);
});

test('an older answer of the poll does not take a newer one back', async () => {
  tap.mockResolvedValue(run(5));
  const one = bench(run(4));
  let late: (told: Run) => void = () => {};
  ask.mockReturnValue(new Promise<Run>((resolve) => (late = resolve)));
  await vi.advanceTimersByTimeAsync(1100);
  await one.work('started');
  late(run(4));
  await vi.advanceTimersByTimeAsync(10);
  expect(one.run.seen).toBe(5);
  ask.mockResolvedValue(run(6));
  await vi.advanceTimersByTimeAsync(1000);
  expect(one.run.seen).toBe(6);
});

test('while nobody answers the tap waits under its name, and is kept once when there is an answer', async () => {
  tap.mockRejectedValueOnce(new Problem(0, 'away')).mockResolvedValue(run(5));
  const one = bench(run(4));
  await one.work('started');
  expect([one.silent, one.waiting.length]).toEqual([true, 1]);
  const name = tap.mock.lastCall![1].name;
  await vi.advanceTimersByTimeAsync(1100);
  expect([one.silent, one.waiting.length, one.run.seen]).toEqual([false, 0, 5]);
  expect(tap.mock.lastCall![1].name).toBe(name);
});

test('what follows from a tap is not guessed: where it is not known, a further tap is refused', async () => {
  tap.mockRejectedValue(new Problem(0, 'away'));
  ask.mockRejectedValue(new Problem(0, 'away'));
  const one = bench(run(4));
  await one.work('started');
  expect([one.hand?.begun, one.lost]).toEqual([true, false]); // beginning a step leads to nothing new
  expect(await one.work('gone')).toBe(false);
  expect(one.waiting).toHaveLength(1);
});

test('a tap that another screen forestalled is told, and not kept', async () => {
  const said = vi.spyOn(notices, 'say');
  tap.mockRejectedValue(new Problem(412, 'seen by another'));
  ask.mockResolvedValue(run(6));
  const one = bench(run(4));
  expect(await one.work('gone')).toBe(false);
  expect([one.run.seen, one.waiting]).toEqual([6, []]);
  expect(said.mock.lastCall?.[0]).toContain('Another screen tapped first');
});

test('a screen that is ahead of the program follows it back to a restored state', async () => {
  const said = vi.spyOn(notices, 'say');
  const one = bench(run(9));
  ask.mockResolvedValue(run(4));
  await vi.advanceTimersByTimeAsync(1100);
  expect(one.run.seen).toBe(4);
  expect(said.mock.lastCall?.[0]).toContain('a backup was restored');
  tap.mockResolvedValue(run(5));
  await one.work('started');
  expect(tap.mock.lastCall![1].after).toBe(4);
});

test('a note that waited is kept although another screen tapped meanwhile', async () => {
  tap
    .mockRejectedValueOnce(new Problem(0, 'away'))
    .mockRejectedValueOnce(new Problem(412, 'seen by another'))
    .mockResolvedValue(run(8));
  const one = bench(run(4));
  await one.tap({ kind: 'note', words: 'a deep line' });
  ask.mockResolvedValue(run(7));
  await vi.advanceTimersByTimeAsync(1100);
  expect([one.waiting, one.run.seen]).toEqual([[], 8]);
  expect(tap.mock.lastCall![1]).toMatchObject({ after: 7, tap: { words: 'a deep line' } });
});
