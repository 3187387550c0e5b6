/** Delivers the taps that wait in this browser: in order, one delivery at a time, whichever page is open. */
import { BESIDE } from './beside';
import { api, Problem, type Run, type Tap } from './client';
import { dropTap, keepRefused, keepTap, newName, waitingTaps, type RefusedTaps, type WaitingTap } from './waiting-taps';

export type { WaitingTap } from './waiting-taps';

/** How a delivery ended: all were kept; nobody answers (`why` it cannot be kept now, where it says so); some were refused. */
export interface Delivered {
  silent?: boolean;
  why?: string;
  refused?: { problem: Problem; taps: WaitingTap[] };
}

const LONGEST_AGE_S = 86_400;
const open = new Set<number>();

export class TapQueue {
  private busy = false;

  constructor(readonly run: number) {}

  get list(): WaitingTap[] {
    return waitingTaps(this.run);
  }

  add(tap: Tap, after: number): WaitingTap {
    const before = this.list.at(-1);
    const place = (before?.place ?? 0) + 1;
    const one = { run: this.run, tap, name: newName(), place, after, afterTap: before?.name, tapped: Date.now() };
    keepTap(one);
    return one;
  }

  /** Take the last one back, if it cannot have been kept. */
  takeBack(): boolean {
    const last = this.list.at(-1);
    if (!last || last.tried) return false;
    dropTap(last.name);
    return true;
  }

  /** Send them in order until none is left, nobody answers, or one is refused. Only one tab delivers at a time. */
  async deliver(told: (run: Run) => void = () => {}): Promise<Delivered> {
    if (this.busy) return {};
    this.busy = true;
    try {
      return await alone(`kelbrast.taps.${this.run}`, () => this.sendAll(told));
    } finally {
      this.busy = false;
    }
  }

  private async sendAll(told: (run: Run) => void): Promise<Delivered> {
    for (let first = this.list[0]; first; first = this.list[0]) {
      const ended = await this.send(first, told);
      if (ended) return ended;
    }
    return {};
  }

  private async send(first: WaitingTap, told: (run: Run) => void): Promise<Delivered | null> {
    keepTap({ ...first, tried: true });
    const age_s = Math.min(LONGEST_AGE_S, Math.max(0, (Date.now() - first.tapped) / 1000));
    const { tap, name, after, afterTap: after_tap } = first;
    try {
      const run = await api.tap(this.run, { tap, name, after, after_tap, age_s });
      dropTap(name);
      told(run);
      return null;
    } catch (trouble) {
      const problem = trouble as Problem;
      // No answer, none that says whether it was kept, or this device is to pair again: it waits here.
      if (problem.status === 0) return { silent: true, why: '' };
      if (problem.status >= 500 || problem.status === 401) return { silent: true, why: problem.message };
      if (problem.status === 412 && BESIDE.includes(tap.kind)) return this.sendBeside(first, told);
      return this.refused(first, problem);
    }
  }

  /** What stands beside the work contradicts nothing that others tapped: it is kept after that, in the same place of the queue. */
  private async sendBeside(first: WaitingTap, told: (run: Run) => void): Promise<Delivered | null> {
    try {
      const now = await api.run(this.run);
      const moved = { ...first, after: now?.seen ?? first.after, afterTap: undefined, tried: true };
      keepTap(moved);
      const { tap, name, after } = moved;
      const run = await api.tap(this.run, { tap, name, after, after_tap: undefined, age_s: 0 });
      dropTap(name);
      told(run);
      return null;
    } catch (trouble) {
      const problem = trouble as Problem;
      if (problem.status === 0 || problem.status === 412 || problem.status >= 500) return { silent: true, why: '' };
      return this.refused(first, problem);
    }
  }

  /** What follows from a tap that was refused cannot be kept either; what stands beside the work can. */
  private refused(first: WaitingTap, problem: Problem): Delivered {
    const others = this.list.filter((one) => one.name !== first.name);
    const fall = BESIDE.includes(first.tap.kind) ? [] : others.filter((one) => !BESIDE.includes(one.tap.kind));
    const taps = [first, ...fall];
    keepRefused({
      id: first.name,
      run: this.run,
      kinds: taps.map((one) => one.tap.kind),
      words: words(taps),
      why: whyNot(problem),
    });
    for (const one of taps) dropTap(one.name);
    const next = this.list[0];
    if (next) keepTap({ ...next, after: first.after, afterTap: first.afterTap });
    return { refused: { problem, taps } };
  }
}

/** What was written in them: that is lost for good when nobody reads it here. */
function words(taps: WaitingTap[]): string {
  return taps.flatMap((one) => (one.tap.words ? [one.tap.words] : [])).join(' ');
}

function whyNot(problem: Problem): string {
  if (problem.status === 412) return 'Another screen tapped first, so a tap of this one was not saved.';
  return `A tap was not saved: ${problem.message}.`;
}

/** A refusal for a person, on whichever page it is read. */
export function refusalText(one: RefusedTaps): string {
  const others = one.kinds.length - 1;
  const more = others ? ` ${others === 1 ? 'The tap' : `The ${others} taps`} after it could not be saved either.` : '';
  const written = one.words ? ` Written in it: “${one.words}”` : '';
  return `${one.why}${more} Look at the bench before you go on.${written}`;
}

/** Do this while no other tab does; where the browser cannot say so, the names of the taps keep each from being kept twice. */
async function alone(name: string, act: () => Promise<Delivered>): Promise<Delivered> {
  const locks = typeof navigator === 'undefined' ? undefined : navigator.locks;
  if (!locks) return act();
  return locks.request(name, { ifAvailable: true }, (lock) => (lock ? act() : {}));
}

/** A bench of this run is open and delivers its taps itself. */
export function benchOpen(run: number, here: boolean) {
  if (here) open.add(run);
  else open.delete(run);
}

/** Send what waits of runs whose bench is not open. */
export async function deliverTaps() {
  const runs = [...new Set(waitingTaps().map((one) => one.run))].filter((run) => !open.has(run));
  for (const run of runs) {
    const queue = new TapQueue(run);
    while ((await queue.deliver()).refused); // what stood beside the refused one goes on
  }
}
