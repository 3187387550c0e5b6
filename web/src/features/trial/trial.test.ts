import { beforeEach, expect, it, vi } from 'vitest';
import type { Trial, TrialSet } from '../../api/client';
import { TrialInHand } from './trial.svelte';

vi.mock('../../api/client', () => ({ api: {} }));

const store = new Map<string, string>();
beforeEach(() => {
  store.clear();
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => store.get(key) ?? null,
    setItem: (key: string, value: string) => store.set(key, value),
    removeItem: (key: string) => store.delete(key),
  });
  vi.useFakeTimers();
});

function begun(): TrialInHand {
  const set = { round_s: 20, label: 'P80 belt' } as unknown as TrialSet;
  const file = {
    tool: 'belt-p80',
    material: 'brass',
    grade: 'P36',
    side_mm: 50,
    seconds: 1,
    looks: [],
  } as unknown as Trial;
  store.set('kelbrast.trial', JSON.stringify({ stage: 'work', set, file, worked: 0 }));
  return new TrialInHand();
}

it('counts only while the clock runs, says when to look, and stops for each answer', () => {
  const trial = begun();
  trial.start();
  vi.advanceTimersByTime(12_000);
  expect(trial.seconds).toBeCloseTo(12, 0);
  expect(trial.left).toBeCloseTo(8, 0);
  trial.stop();
  vi.advanceTimersByTime(30_000);
  expect(trial.seconds).toBeCloseTo(12, 0);
  trial.start();
  vi.advanceTimersByTime(10_000);
  expect(trial.left).toBeLessThan(0);
  trial.look('still');
  expect(trial.running).toBe(false);
  expect(trial.left).toBeCloseTo(20, 0); // from the look on
  expect(trial.file?.looks?.[0]).toMatchObject({ seen: 'still' });
  trial.leave();
});

it('keeps every look apart, takes the last back, and is there again after a reload', () => {
  const trial = begun();
  trial.look('still');
  trial.look('half');
  const [first, second] = trial.file!.looks!;
  expect(second!.seconds).toBeGreaterThan(first!.seconds);
  trial.look('gone');
  expect(trial.stage).toBe('measure');
  trial.leave();
  const again = new TrialInHand();
  expect([again.stage, again.file?.looks?.length]).toEqual(['measure', 3]);
  again.undo();
  expect([again.stage, again.file?.looks?.length]).toEqual(['work', 2]);
  again.forget();
  again.leave();
  const fresh = new TrialInHand();
  expect([fresh.stage, fresh.file]).toEqual(['choose', null]);
  fresh.leave();
});

it('a trial of a broken memory begins anew', () => {
  store.set('kelbrast.trial', '{');
  const trial = new TrialInHand();
  expect(trial.stage).toBe('choose');
  trial.leave();
});
