import { api, Problem, type Hand, type Run, type Tap } from '../../api/client';
import { remember, remembered } from '../../api/remembered';
import { benchOpen, TapQueue, type Delivered, type WaitingTap } from '../../api/taps';
import { storeIsFull } from '../../api/waiting-taps';
import { showRefusals } from '../../app/refusals';
import { notices } from '../../ui/notices.svelte';
import { shown } from '../../units/shown.svelte';
import { foreseen, stepKey, whatFollows, type Standing } from './foreseen';

const POLL_MS = 1000;
const TICK_MS = 200;

/**
 * A run on this screen: asked for every second, its clock counted on in between, taps kept here until the server has them.
 * While nobody answers it goes on by what the server told ahead.
 */
export class BenchRun {
  /** As the server told it last, and what it told would follow. */
  private told = $state.raw<Standing>() as Standing;
  private ahead = $state.raw<{ run: Run; ahead: Run[] }>() as { run: Run; ahead: Run[] };
  waiting = $state.raw<readonly WaitingTap[]>([]);
  silent = $state(false);
  /** Why the server cannot keep a tap now, when it says so: the disk is full, another program holds the database. */
  why = $state('');
  private now = $state(Date.now());
  private queue: TapQueue;
  private busy = false;
  private warned = false;
  /** The step at which it was asked for what follows. */
  private askedAt = '';
  private stops: (() => void)[] = [];

  constructor(run: Run, at = Date.now()) {
    const known = remembered(run.id);
    this.ahead = known ?? { run, ahead: [] };
    this.queue = new TapQueue(run.id);
    this.waiting = this.queue.list;
    this.take(run, at);
    benchOpen(run.id, true);
    void this.look();
    const poll = setInterval(() => void this.look(), POLL_MS);
    const tick = setInterval(() => (this.now = Date.now()), TICK_MS);
    this.stops.push(
      () => clearInterval(poll),
      () => clearInterval(tick),
      () => benchOpen(run.id, false),
    );
  }

  leave() {
    for (const stop of this.stops) stop();
  }

  /** With the taps that wait, where it is known what they lead to; null where only the server knows. */
  private readonly standing = $derived.by(() =>
    this.waiting.length ? foreseen(this.told, whatFollows(this.ahead, this.told.run), this.waiting) : this.told,
  );
  private readonly offline = $derived(this.silent || this.waiting.length > 1);
  private readonly here = $derived((this.offline ? this.standing : null) ?? this.told);

  get run(): Run {
    return this.here.run;
  }

  get hand(): Hand | null {
    return this.run.hand;
  }

  /** Seconds since the run stood as it is shown. */
  get since(): number {
    return Math.max(0, this.now - this.here.at) / 1000;
  }

  /** Whether taps for the work can be taken now. */
  get ready(): boolean {
    return this.waiting.length === 0 || (this.silent && this.standing !== null);
  }

  /** Nobody answers, and what the last tap leads to is not known here. */
  get lost(): boolean {
    return this.silent && this.standing === null;
  }

  /** Tap for the step in hand. */
  async work(kind: Tap['kind'], more: Partial<Tap> = {}): Promise<boolean> {
    const hand = this.hand;
    if (!hand) return false;
    return this.tap({ kind, piece: hand.piece, face: hand.face_id, route: hand.route, step: hand.step, ...more });
  }

  /** Keep a tap: first in this browser, then on the server, as soon as that answers. False when it was refused. */
  async tap(tap: Partial<Tap> & { kind: Tap['kind'] }): Promise<boolean> {
    if (!this.ready) {
      notices.say('The last tap still waits to be saved.', 'trouble');
      return false;
    }
    if (this.waiting.length && !this.known(tap as Tap)) {
      notices.say(
        'What follows from that only the program can work out: tap it when there is a connection.',
        'trouble',
      );
      return false;
    }
    this.queue.add(tap as Tap, this.told.run.seen);
    this.waiting = this.queue.list;
    const kept = await this.deliver();
    if (this.waiting.length && storeIsFull() && !this.warned) {
      this.warned = true;
      notices.say('This browser has no room left: what waits is only there while this page stays open.', 'trouble');
    }
    return kept;
  }

  private known(tap: Tap): boolean {
    const next = { run: this.told.run.id, place: 0, tap, name: '', after: 0, tapped: Date.now() };
    return foreseen(this.told, whatFollows(this.ahead, this.told.run), [...this.waiting, next]) !== null;
  }

  async undo() {
    if (this.waiting.length) {
      const back = this.queue.takeBack();
      this.waiting = this.queue.list;
      notices.say(back ? 'Taken back.' : 'It may be saved already: undo it when there is a connection.');
      return;
    }
    const last = this.run.last;
    if (!last) return;
    if (await this.tap({ kind: 'undone', undoes: last.number })) notices.say(`Taken back: ${shown.tell(last.said)}`);
  }

  private async deliver(): Promise<boolean> {
    if (this.busy) return true; // what delivers now takes it along
    this.busy = true;
    let ended: Delivered;
    try {
      ended = await this.queue.deliver((run) => {
        this.waiting = this.queue.list;
        this.take(run);
      });
    } finally {
      this.busy = false;
    }
    this.waiting = this.queue.list;
    if (ended.silent) {
      this.silent = true;
      this.why = ended.why ?? '';
      return true; // it is kept here
    }
    return ended.refused ? this.refused() : true;
  }

  /** What could not be kept stands on the screen until it is read; here the newest state is shown. */
  private async refused(): Promise<boolean> {
    await this.look(true);
    showRefusals();
    if (this.waiting.length) await this.deliver();
    return false;
  }

  private async look(all = false) {
    if (this.waiting.length && !all) return void this.deliver();
    if (this.busy && !all) return;
    const asked = this.told.run.seen;
    try {
      const told = await api.run(this.told.run.id, all ? undefined : asked);
      this.silent = false;
      // An answer that is older than what is shown comes too late, unless it was asked from just there: then the program went
      // back to an older state, as when a backup was restored.
      const wentBack = told !== undefined && told.seen < asked && this.told.run.seen === asked && !this.busy;
      if (wentBack) notices.say('The program holds an older state of this run now: a backup was restored.', 'trouble');
      if (told && (told.seen >= this.told.run.seen || wentBack)) this.take(told);
    } catch (problem) {
      this.silent = (problem as Problem).status === 0;
    }
  }

  private take(run: Run, at = Date.now()) {
    this.told = { run, at };
    this.silent = false;
    this.why = '';
    remember({ run, ahead: whatFollows(this.ahead, run), at });
    const step = stepKey(run);
    if (run.status === 'open' && step && this.askedAt !== step) void this.askAhead(step);
  }

  /** What comes next, while there is somebody to ask. */
  private async askAhead(step: string) {
    this.askedAt = step;
    try {
      const told = await api.ahead(this.told.run.id);
      const { run, at } = this.told;
      if (stepKey(run) !== step) return; // then it was asked for again
      this.ahead = { run, ahead: told.runs };
      remember({ ...this.ahead, at });
    } catch {
      this.askedAt = ''; // what was known of it still holds
    }
  }
}
