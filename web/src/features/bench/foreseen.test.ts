import { describe, expect, it } from 'vitest';
import type { Hand, Run, Tap } from '../../api/client';
import type { WaitingTap } from '../../api/taps';
import { foreseen, whatFollows } from './foreseen';

const hand = (step: number, more: Partial<Hand> = {}): Hand =>
  ({
    piece: 1, face: 'rail', route: 0, step, plan: { tool: 'belt' }, begun: false, running: false, seconds: 0, running_s: 0,
    planned_s: 60, more_s: 0, more_by_s: 20, on_tool_s: 0, charged_s: 0, size: null, ...more,
  }) as Hand; // prettier-ignore
const run = (now: Hand | null, more: Partial<Run> = {}): Run =>
  ({ id: 7, seen: 3, status: 'open', hand: now, last: null, readings: [], photos: [], ...more }) as unknown as Run;
const tap = (kind: Tap['kind'], at: number, more: Partial<Tap> = {}): WaitingTap => ({
  run: 3,
  place: at,
  tap: { kind, ...more } as Tap,
  name: `tap-${kind}-${at}`,
  after: 3,
  tapped: at,
});
const AHEAD = [run(hand(2)), run(hand(3)), run(null)];

describe('while nobody answers', () => {
  it('counts the clock on from tap to tap', () => {
    const told = foreseen({ run: run(hand(1)), at: 0 }, AHEAD, [tap('started', 1000), tap('paused', 31_000)])!;
    expect(told.run.hand).toMatchObject({ begun: true, running: false, seconds: 30, on_tool_s: 30, charged_s: 30 });
    expect(told.at).toBe(31_000);
    const on = foreseen(told, AHEAD, [tap('started', 60_000), tap('more', 70_000, { seconds: 20 })])!;
    expect(on.run.hand).toMatchObject({ running: true, seconds: 40, running_s: 10, more_s: 20 });
  });

  it('goes on to the next steps as they were told, and to the end', () => {
    const taps = [tap('started', 1), tap('gone', 2), tap('started', 3), tap('gone', 4), tap('started', 5)];
    expect(foreseen({ run: run(hand(1)), at: 0 }, AHEAD, taps)!.run.hand).toMatchObject({ step: 3, begun: true });
    const end = [...taps, tap('gone', 6), tap('finished', 7, { well: true })];
    expect(foreseen({ run: run(hand(1)), at: 0 }, AHEAD, end)!.run).toMatchObject({
      status: 'finished',
      well: true,
      id: 7,
      seen: 3,
    });
  });

  it('says so where only the program knows', () => {
    const from = { run: run(hand(1, { begun: true })), at: 0 };
    expect(foreseen(from, AHEAD, [tap('back', 1)])).toBeNull();
    expect(foreseen(from, AHEAD, [tap('picked', 1, { piece: 2 })])).toBeNull();
    expect(foreseen(from, [], [tap('gone', 1)])).toBeNull();
    expect(foreseen({ run: run(hand(1)), at: 0 }, AHEAD, [tap('gone', 1)])).toBeNull();
    expect(foreseen(from, AHEAD, [tap('changed', 1, { tool: 'other' })])).toBeNull();
    expect(foreseen(from, AHEAD, [tap('finished', 1, { well: true })])).toBeNull();
  });

  it('takes what stands beside the work, but no reading that decides what comes next', () => {
    const from = { run: run(hand(1, { begun: true })), at: 0 };
    expect(foreseen(from, AHEAD, [tap('note', 1), tap('gone', 2)])!.run.hand!.step).toBe(2);
    expect(foreseen(from, AHEAD, [tap('measured', 1)])).not.toBeNull();
    const sized = { run: run(hand(1, { size: {} as Hand['size'] })), at: 0 };
    expect(foreseen(sized, [], [tap('measured', 1)])).toBeNull();
  });

  it('begins the life of a new abrasive and a new charge', () => {
    const from = { run: run(hand(1, { begun: true, running: true, on_tool_s: 100, charged_s: 100 })), at: 0 };
    const told = foreseen(from, AHEAD, [
      tap('changed', 5000, { tool: 'belt' }),
      tap('recharged', 8000, { tool: 'belt' }),
    ])!;
    expect(told.run.hand).toMatchObject({ on_tool_s: 3, charged_s: 0, seconds: 8 });
  });
});

describe('what was told ahead', () => {
  const told = { run: run(hand(1)), ahead: AHEAD };
  it('is used from where the run has come to', () => {
    expect(whatFollows(told, run(hand(1, { begun: true })))).toBe(AHEAD);
    expect(whatFollows(told, run(hand(2)))).toEqual(AHEAD.slice(1));
    expect(whatFollows(told, run(null))).toEqual([]);
  });
  it('says nothing of another way', () => {
    expect(whatFollows(told, run(hand(2, { route: 1 })))).toEqual([]);
    expect(whatFollows(told, run(hand(2, { piece: 2 })))).toEqual([]);
  });
});
