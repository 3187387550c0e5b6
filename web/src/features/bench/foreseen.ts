/** The bench while nobody answers: what stands there after taps that are not kept yet. What comes next, the program told before. */
import type { Hand, Run, Tap } from '../../api/client';
import { BESIDE } from '../../api/beside';
import type { WaitingTap } from '../../api/taps';

/** A run and the moment (by this machine's clock, ms) at which it stood so. */
export interface Standing {
  run: Run;
  at: number;
}

/** Names the step in hand; empty when there is none. */
export const stepKey = ({ hand }: Run): string =>
  hand ? [hand.piece, hand.face_id, hand.route, hand.step].join('|') : '';

/** What comes after the step in hand: the rest of what was told, if that led here. */
export function whatFollows(told: { run: Run; ahead: Run[] }, now: Run): Run[] {
  if (stepKey(told.run) === stepKey(now)) return told.ahead;
  const at = told.ahead.findIndex((one) => stepKey(one) === stepKey(now));
  return at < 0 ? [] : told.ahead.slice(at + 1);
}

/** How the run stands after these taps; null where only the program knows. */
export function foreseen(from: Standing, ahead: Run[], taps: readonly WaitingTap[]): Standing | null {
  let { run, at } = from;
  let left = ahead;
  for (const { tap, tapped } of taps) {
    const hand = run.hand && passed(run.hand, Math.max(0, tapped - at) / 1000);
    at = Math.max(at, tapped);
    if (BESIDE.includes(tap.kind) && !(tap.kind === 'measured' && hand?.size)) {
      run = { ...run, hand };
      continue;
    }
    if (tap.kind === 'gone' && hand?.begun && left.length) {
      run = { ...left[0]!, id: run.id, seen: run.seen, last: run.last, readings: run.readings, photos: run.photos };
      left = left.slice(1);
      continue;
    }
    if (tap.kind === 'finished' && run.hand === null) {
      run = { ...run, status: 'finished', well: tap.well ?? null };
      continue;
    }
    const after = hand && stepTapped(hand, tap);
    if (!after) return null;
    run = { ...run, hand: after };
  }
  return { run, at };
}

/** The step in hand so many seconds later. */
function passed(hand: Hand, seconds: number): Hand {
  if (!hand.running) return hand;
  return {
    ...hand,
    seconds: hand.seconds + seconds,
    running_s: hand.running_s + seconds,
    on_tool_s: hand.on_tool_s + seconds,
    charged_s: hand.charged_s + seconds,
  };
}

function stepTapped(hand: Hand, tap: Tap): Hand | null {
  const starts = { begun: true, running: true, running_s: hand.running ? hand.running_s : 0 };
  switch (tap.kind) {
    case 'started':
      return hand.running ? null : { ...hand, ...starts };
    case 'paused':
      return hand.running ? { ...hand, running: false, running_s: 0 } : null;
    case 'more':
      return { ...hand, ...starts, more_s: hand.more_s + (tap.seconds ?? 0) };
    case 'changed':
      return tap.tool === hand.plan.tool ? { ...hand, on_tool_s: 0 } : null;
    case 'recharged':
      return tap.tool === hand.plan.tool ? { ...hand, charged_s: 0 } : null;
    default:
      return null;
  }
}
