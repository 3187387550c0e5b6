import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Run, Tap } from './client';

const store = new Map<string, string>();
/** The browser's store, as long as there is room in it. */
let room = true;
const methods = {
  getItem: (key: string) => store.get(key) ?? null,
  setItem: (key: string, value: string) => {
    if (!room) throw new DOMException('full', 'QuotaExceededError');
    store.set(key, value);
  },
  removeItem: (key: string) => void store.delete(key),
};
// Its keys are its own properties, as in a browser.
vi.stubGlobal(
  'localStorage',
  new Proxy(methods, {
    ownKeys: () => [...store.keys()],
    getOwnPropertyDescriptor: () => ({ enumerable: true, configurable: true }),
  }),
);
const { api, Problem } = await import('./client');
const { deliverTaps, refusalText, TapQueue } = await import('./taps');
const { dropRefused, refusedTaps, storeIsFull, waitingTaps } = await import('./waiting-taps');

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
  room = true;
  sent = [];
  vi.spyOn(api, 'run').mockResolvedValue({ seen: 12 } as Run);
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
    expect([queue.list[0]!.after, queue.list[0]!.afterTap]).toEqual([5, undefined]);
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

  it('beside the work go on after what another screen tapped, and the rest keeps its place', async () => {
    answers(412);
    const queue = new TapQueue(3);
    for (const kind of ['note', 'photo', 'trouble'] as const) queue.add(tap(kind), 5);
    expect(await queue.deliver()).toEqual({});
    expect(sent.map((one) => one.after)).toEqual([5, 12, 5, 5]);
    expect(sent[1]).toMatchObject({ name: sent[0]!.name, after_tap: undefined });
    expect(sent.slice(2).map((one) => one.after_tap)).toEqual([sent[1]!.name, sent[2]!.name]);
    expect([refusedTaps(), waitingTaps()]).toEqual([[], []]);
  });

  it('are sent when the store of the browser is full, and held by the page until they are kept', async () => {
    room = false;
    answers(0);
    const queue = new TapQueue(3);
    queue.add(tap('started'), 5);
    queue.add(tap('note'), 5);
    expect([storeIsFull(), queue.list.length]).toEqual([true, 2]);
    expect(await queue.deliver()).toEqual({ silent: true, why: '' });
    room = true;
    expect(await queue.deliver()).toEqual({});
    expect([storeIsFull(), queue.list]).toEqual([false, []]);
    expect(sent).toHaveLength(3);
  });

  it('of two tabs do not write over each other', async () => {
    const [mine, other] = [new TapQueue(3), new TapQueue(3)];
    mine.add(tap('note'), 5);
    other.add(tap('trouble'), 5);
    mine.add(tap('photo'), 5);
    expect(waitingTaps(3).map((one) => one.tap.kind)).toEqual(['note', 'trouble', 'photo']);
    answers();
    expect(await Promise.all([mine.deliver(), other.deliver()])).toEqual([{}, {}]);
    expect(waitingTaps()).toEqual([]);
    expect(new Set(sent.map((one) => one.name)).size).toBe(3);
  });

  it('that were refused on another page are kept until they are read, and what stood beside them is delivered', async () => {
    answers(422);
    const queue = new TapQueue(3);
    queue.add(tap('started'), 5);
    queue.add({ ...tap('note'), words: 'a deep line at the rim' }, 5);
    queue.add({ ...tap('gone'), words: 'all gone' }, 5);
    await deliverTaps();
    expect(sent.at(-1)).toMatchObject({ after: 5, after_tap: undefined });
    const [refused, ...others] = refusedTaps();
    expect(others).toEqual([]);
    expect(refused).toMatchObject({ run: 3, kinds: ['started', 'gone'], words: 'all gone' });
    expect(refusalText(refused!)).toMatch(/said 422.*The tap after it.*“all gone”/);
    expect(waitingTaps()).toEqual([]);
    dropRefused(refused!.id);
    expect(refusedTaps()).toEqual([]);
  });

  it('of an older version are taken over in their order', () => {
    const old = [
      { tap: tap('started'), name: 'tap-a', after: 5, tapped: 1 },
      { tap: tap('gone'), name: 'tap-b', after: 5, tapped: 2 },
    ];
    store.set('kelbrast.taps.7', JSON.stringify(old));
    expect(new TapQueue(7).list.map((one) => [one.run, one.name])).toEqual([
      [7, 'tap-a'],
      [7, 'tap-b'],
    ]);
    expect(store.has('kelbrast.taps.7')).toBe(false);
  });
});
