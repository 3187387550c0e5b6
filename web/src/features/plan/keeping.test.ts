// @vitest-environment jsdom
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { api, Problem, type Job, type KeptJob } from '../../api/client';
import { deliverEdits, waitingEdit } from '../../api/edits';
import { Keeping } from './keeping.svelte';

const job = (title: string) => ({ title, faces: [] }) as unknown as Job;
const kept = (revision: number, title = 'as kept') => ({ id: 7, revision, job: job(title) }) as KeptJob;
const change = vi.spyOn(api, 'change');

beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
  change.mockReset();
});
afterEach(() => vi.useRealTimers());

test('a change waits in the browser until the server has it', async () => {
  change.mockResolvedValue(kept(4));
  const keeping = new Keeping(kept(3), () => job('changed'));
  keeping.changed();
  expect(waitingEdit(7)).toEqual({ revision: 3, job: job('changed') });
  await vi.advanceTimersByTimeAsync(600);
  expect(change).toHaveBeenCalledExactlyOnceWith(7, job('changed'), 3, false);
  expect(keeping.saving).toBe('saved');
  expect(waitingEdit(7)).toBeNull();
  keeping.leave();
});

test('while the server is away it is asked again, and the page is not left unwarned', async () => {
  change.mockRejectedValueOnce(new Problem(0, 'away')).mockResolvedValueOnce(kept(4));
  const keeping = new Keeping(kept(3), () => job('changed'));
  keeping.changed();
  await vi.advanceTimersByTimeAsync(600);
  expect([keeping.saving, keeping.unkept]).toEqual(['failed', true]);
  await vi.advanceTimersByTimeAsync(2100);
  expect([keeping.saving, keeping.unkept]).toEqual(['saved', false]);
  keeping.leave();
});

test('a store that is full says so, and what is faulty is not sent again', async () => {
  change.mockRejectedValueOnce(new Problem(507, 'The disk is full')).mockRejectedValueOnce(new Problem(422, 'no'));
  const keeping = new Keeping(kept(3), () => job('changed'));
  keeping.changed();
  await vi.advanceTimersByTimeAsync(600);
  expect([keeping.saving, keeping.why]).toEqual(['refused', 'The disk is full']);
  await vi.advanceTimersByTimeAsync(2100);
  expect([keeping.saving, keeping.why]).toEqual(['faulty', null]);
  await vi.advanceTimersByTimeAsync(9000);
  expect(change).toHaveBeenCalledTimes(2);
  keeping.leave();
});

test('an edit on the same revision is gone on with, one on an older asks, one that arrived is forgotten', async () => {
  const wait = (revision: number, title: string) =>
    localStorage.setItem('kelbrast.edit.7', JSON.stringify({ revision, job: job(title) }));
  change.mockResolvedValue(kept(4));
  wait(3, 'edited');
  const same = new Keeping(kept(3), () => job('edited'));
  expect(same.start).toEqual(job('edited'));
  await vi.advanceTimersByTimeAsync(10);
  expect(same.saving).toBe('saved');
  same.leave();
  wait(3, 'edited');
  const older = new Keeping(kept(5), () => job('edited'));
  expect([older.start.title, older.saving]).toEqual(['edited', 'conflict']);
  older.leave();
  wait(3, 'as kept');
  expect(new Keeping(kept(4), () => job('as kept')).saving).toBe('saved');
  expect(waitingEdit(7)).toBeNull();
});

test('edits of pages that are closed are delivered; those of an open page are its own affair', async () => {
  change.mockResolvedValue(kept(4));
  const keeping = new Keeping(kept(3), () => job('changed'));
  keeping.changed();
  await deliverEdits();
  expect(change).not.toHaveBeenCalled();
  change.mockRejectedValueOnce(new Problem(0, 'away'));
  keeping.leave();
  await vi.advanceTimersByTimeAsync(10);
  expect(waitingEdit(7)?.job.title).toBe('changed');
  await deliverEdits();
  expect(waitingEdit(7)).toBeNull();
});
