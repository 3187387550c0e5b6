import { api, Problem, type Hand, type Run, type Tap } from '../../api/client';
import { notices } from '../../ui/notices.svelte';
import { shown } from '../../units/shown.svelte';
import { dropWaiting, keepWaiting, waiting, type WaitingTap } from './waiting';

const POLL_MS = 1000;
const TICK_MS = 200;

/** Taps that contradict nothing that another screen may have tapped meanwhile. */
const BESIDE = ['waiting', 'operated', 'measured', 'photo', 'note', 'trouble', 'corrected'];

/** A run on this screen: asked for every second, its clock counted on in between, a tap kept here until the server has it. */
export class BenchRun {
  run = $state.raw<Run>() as Run;
  /** Milliseconds of this page's own clock: when the answer came, and now. */
  private answered = $state(0);
  private now = $state(0);
  silent = $state(false);
  /** Why the server can not keep a tap now, when it says so: the disk is full, another program holds the database. */
  why = $state('');
  waiting = $state.raw<WaitingTap | null>(null);
  private busy = false;
  private stops: (() => void)[] = [];

  constructor(run: Run) {
    this.take(run);
    this.waiting = waiting(run.id);
    if (this.waiting) void this.send();
    const poll = setInterval(() => void this.look(), POLL_MS);
    const tick = setInterval(() => (this.now = performance.now()), TICK_MS);
    this.stops.push(
      () => clearInterval(poll),
      () => clearInterval(tick),
    );
  }

  leave() {
    for (const stop of this.stops) stop();
  }

  get hand(): Hand | null {
    return this.run.hand;
  }

  /** Seconds since the server answered. */
  get since(): number {
    return Math.max(0, this.now - this.answered) / 1000;
  }

  /** Whether taps for the work can be taken now. */
  get ready(): boolean {
    return this.waiting === null;
  }

  /** Tap for the step in hand. */
  async work(kind: Tap['kind'], more: Partial<Tap> = {}): Promise<boolean> {
    const hand = this.hand;
    if (!hand) return false;
    return this.tap({ kind, piece: hand.piece, face: hand.face, route: hand.route, step: hand.step, ...more });
  }

  /** Keep a tap: first in this browser, then on the server. False when it was refused. */
  async tap(tap: Partial<Tap> & { kind: Tap['kind'] }): Promise<boolean> {
    if (this.waiting) {
      notices.say('The last tap still waits to be kept.', 'trouble');
      return false;
    }
    this.waiting = {
      tap: tap as Tap,
      name: `tap-${Date.now().toString(36)}-${Math.random().toString(36).slice(2, 10)}`,
      after: this.run.seen,
      tapped: Date.now(),
    };
    keepWaiting(this.run.id, this.waiting);
    return this.send();
  }

  async undo() {
    const last = this.run.last;
    if (!last) return;
    if (await this.tap({ kind: 'undone', undoes: last.number })) notices.say(`Taken back: ${shown.tell(last.said)}`);
  }

  private async send(): Promise<boolean> {
    const one = this.waiting;
    if (!one || this.busy) return false;
    this.busy = true;
    try {
      const age_s = Math.min(86_400, Math.max(0, (Date.now() - one.tapped) / 1000));
      this.take(await api.tap(this.run.id, { tap: one.tap, name: one.name, after: one.after, age_s }));
      this.settle();
      return true;
    } catch (problem) {
      return this.refused(problem as Problem, one);
    } finally {
      this.busy = false;
    }
  }

  private async refused(problem: Problem, one: WaitingTap): Promise<boolean> {
    // No answer, or none that says whether it was kept: it waits here, and is sent again under the same name.
    if (problem.status === 0 || problem.status >= 500) {
      this.silent = true;
      this.why = problem.status === 0 ? '' : problem.message;
      return false;
    }
    this.settle();
    const again = problem.status === 412 && BESIDE.includes(one.tap.kind);
    await this.look(true);
    if (again) return this.tap(one.tap);
    notices.say(
      problem.status === 412 ? 'Another screen tapped first, so this tap was not kept. Look again.' : problem.message,
      'trouble',
    );
    return false;
  }

  private settle() {
    this.waiting = null;
    dropWaiting(this.run.id);
  }

  private async look(all = false) {
    if (this.waiting && !this.busy) return void this.send();
    if (this.busy && !all) return;
    try {
      const told = await api.run(this.run.id, all ? undefined : this.run.seen);
      this.silent = false;
      if (told && told.seen >= this.run.seen) this.take(told);
    } catch (problem) {
      this.silent = (problem as Problem).status === 0;
    }
  }

  private take(run: Run) {
    this.run = run;
    this.silent = false;
    this.why = '';
    this.answered = this.now = performance.now();
  }
}
