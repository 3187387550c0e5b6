/** Taps of a run that the program has not confirmed. They live in this browser, also through a reload, and are sent in order. */
import { api, Problem, type Run, type Tap } from './client';
import { BESIDE } from './beside';
import { HERE } from './here';

export interface WaitingTap {
  tap: Tap;
  /** Names this very tap, so that sending it twice keeps it once. */
  name: string;
  /** The newest event that the screen had seen; or, kept while nobody answered, the tap of its own before it. */
  after: number;
  afterTap?: string;
  /** When it was tapped, by this machine's clock: only its age is sent. */
  tapped: number;
  /** It was sent once, so that it may be kept although no answer came. */
  tried?: boolean;
}

/** How a delivery ended: all were kept; nobody answers (`why` it can not be kept now, where it says so); some were refused. */
export interface Delivered {
  run?: Run;
  silent?: boolean;
  why?: string;
  refused?: { problem: Problem; taps: WaitingTap[] };
}

const PREFIX = `${HERE}.taps.`;
const LONGEST_AGE_S = 86_400;
const open = new Set<number>();

export class TapQueue {
  list: WaitingTap[];
  private busy = false;

  constructor(readonly run: number) {
    this.list = read(run);
  }

  add(tap: Tap, after: number): WaitingTap {
    const before = this.list.at(-1);
    const one = { tap, name: named(), after, afterTap: before?.name, tapped: Date.now() };
    this.keep([...this.list, one]);
    return one;
  }

  /** Take the last one back, if it can not have been kept. */
  takeBack(): boolean {
    const last = this.list.at(-1);
    if (!last || last.tried) return false;
    this.keep(this.list.slice(0, -1));
    return true;
  }

  /** Send them in order until none is left, nobody answers, or one is refused. Only one delivery runs at a time. */
  async deliver(told: (run: Run) => void = () => {}): Promise<Delivered> {
    if (this.busy) return {};
    this.busy = true;
    try {
      while (this.list.length) {
        const ended = await this.send(this.list[0]!, told);
        if (ended) return ended;
      }
      return {};
    } finally {
      this.busy = false;
    }
  }

  private async send(first: WaitingTap, told: (run: Run) => void): Promise<Delivered | null> {
    this.keep([{ ...first, tried: true }, ...this.list.slice(1)]);
    const age_s = Math.min(LONGEST_AGE_S, Math.max(0, (Date.now() - first.tapped) / 1000));
    const { tap, name, after, afterTap: after_tap } = first;
    try {
      const run = await api.tap(this.run, { tap, name, after, after_tap, age_s });
      this.keep(this.list.slice(1));
      told(run);
      return null;
    } catch (trouble) {
      const problem = trouble as Problem;
      // No answer, none that says whether it was kept, or this device is to pair again: it waits here.
      if (problem.status === 0) return { silent: true, why: '' };
      if (problem.status >= 500 || problem.status === 401) return { silent: true, why: problem.message };
      return this.refused(first, problem);
    }
  }

  /** What follows from a tap that was refused can not be kept either; what stands beside the work can. */
  private refused(first: WaitingTap, problem: Problem): Delivered {
    const others = this.list.slice(1);
    const beside = BESIDE.includes(first.tap.kind);
    const fall = beside ? [] : others.filter((one) => !BESIDE.includes(one.tap.kind));
    const left = others.filter((one) => !fall.includes(one));
    const next = left[0];
    if (next) left[0] = { ...next, after: first.after, afterTap: first.afterTap };
    this.keep(left);
    return { refused: { problem, taps: [first, ...fall] } };
  }

  private keep(list: WaitingTap[]) {
    this.list = list;
    if (list.length) localStorage.setItem(PREFIX + this.run, JSON.stringify(list));
    else localStorage.removeItem(PREFIX + this.run);
  }
}

/** A bench of this run is open and delivers its taps itself. */
export function benchOpen(run: number, here: boolean) {
  if (here) open.add(run);
  else open.delete(run);
}

/** Send what waits of runs whose bench is not open. What is refused is told by its bench when that is opened. */
export async function deliverTaps(): Promise<Delivered['refused'][]> {
  const runs = Object.keys(localStorage)
    .filter((key) => key.startsWith(PREFIX))
    .map((key) => Number(key.slice(PREFIX.length)))
    .filter((run) => !open.has(run));
  const refused = [];
  for (const run of runs) {
    const ended = await new TapQueue(run).deliver();
    if (ended.refused) refused.push(ended.refused);
  }
  return refused;
}

function read(run: number): WaitingTap[] {
  try {
    return (JSON.parse(localStorage.getItem(PREFIX + run) ?? 'null') as WaitingTap[] | null) ?? [];
  } catch {
    return [];
  }
}

function named(): string {
  return `tap-${Date.now().toString(36)}-${Math.random().toString(36).slice(2, 10)}`;
}
