import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Run, Tap } from './client';

const store = new Map<string, string>();
vi.stubGlobal('localStorage', {
  getItem: (key: string) => store.get(key) ?? null,
  setItem: (key: string, value: string) => void store.set(key, value),
  removeItem: (key: string) => void store.delete(key),
});
const { api, Problem } = await import('./client');
const { TapQueue } = await import('./taps');

const tap = (kind: Tap['kind']): Tap => ({ kind }) as Tap;
const answer = { seen: 9 } as Run;
let sent: { name: string; after: number; after_tap?: string | null }[] = [];
const answers = (...told: (number | 'kept')[]) =>
  vi.spyOn(api, 'tap').mockImplementation((_, body) => {
    sent.push(body);
    const next = told.shift() ?? 'kept';
    return next === 'kept' ? Promise.resolve(answer) : Promise.reject(new Problem(next, `said ${next}`));
  });

beforeEach(() => {
  store.clear();
  sent = [];
});

describe('taps on their way', () => {
  it('are sent in order, each after the one before it', async () => {
    answers();
    const queue = new TapQueue(3);
    const names = [tap('started'), tap('gone'), tap('started')].map((one) => queue.add(one, 5).name);
    expect(await queue.deliver()).toEqual({});
    expect(sent.map((one) => one.name)).toEqual(names);
    expect(sent.map((one) => one.after_tap)).toEqual([undefined, names[0], names[1]]);
    expect(store.size).toBe(0);
  });

  it('wait through a reload until somebody answers, under the same name', async () => {
    answers(0, 507, 401);
    const queue = new TapQueue(3);
    const { name } = queue.add(tap('started'), 5);
    for (const why of ['', 'said 507', 'said 401'])
      expect(await new TapQueue(3).deliver()).toEqual({ silent: true, why });
    expect(await new TapQueue(3).deliver()).toEqual({});
    expect(new Set(sent.map((one) => one.name))).toEqual(new Set([name]));
    expect(store.size).toBe(0);
  });

  it('that follow from a refused one fall with it; what stands beside the work does not', async () => {
    answers(412);
    const queue = new TapQueue(3);
    for (const kind of ['started', 'note', 'gone', 'measured'] as const) queue.add(tap(kind), 5);
    const ended = await queue.deliver();
    expect(ended.refused?.taps.map((one) => one.tap.kind)).toEqual(['started', 'gone']);
    expect(queue.list.map((one) => one.tap.kind)).toEqual(['note', 'measured']);
    expect(queue.list[0]).toMatchObject({ after: 5, afterTap: undefined });
    expect(await queue.deliver()).toEqual({});
    expect(sent[1]!.after_tap).toBeUndefined();
  });

  it('can be taken back until they were sent', async () => {
    answers(0);
    const queue = new TapQueue(3);
    queue.add(tap('started'), 5);
    await queue.deliver();
    queue.add(tap('gone'), 5);
    expect(queue.takeBack()).toBe(true);
    expect(queue.takeBack()).toBe(false);
    expect(new TapQueue(3).list).toHaveLength(1);
  });
});
