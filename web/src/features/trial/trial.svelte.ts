/** A trial in hand: what it is made with, the clock, what was seen and measured. It survives a reload until it is settled. */
import { api, type Trial, type TrialAnswer, type TrialSet } from '../../api/client';

export type Seen = Trial['looks'] extends (infer Look)[] | undefined
  ? Look extends { seen: infer S }
    ? S
    : never
  : never;
export type Stage = 'choose' | 'work' | 'measure' | 'result';

interface Kept {
  stage: Stage;
  set: TrialSet;
  file: Trial;
  /** Seconds of work that are over, without what the running clock has. */
  worked: number;
}

const KEY = 'kelbrast.trial';

export class TrialInHand {
  stage = $state<Stage>('choose');
  set = $state.raw<TrialSet | null>(null);
  file = $state.raw<Trial | null>(null);
  answer = $state.raw<TrialAnswer | null>(null);
  trouble = $state<string | null>(null);
  worked = $state(0);
  /** When the running clock was started, by the browser's own; null while it stands. */
  private startedAt = $state<number | null>(null);
  private now = $state(0);
  private tick: ReturnType<typeof setInterval>;

  constructor() {
    this.restore();
    this.tick = setInterval(() => (this.now = performance.now()), 100);
  }

  leave() {
    if (this.running) this.stop();
    clearInterval(this.tick);
  }

  get running(): boolean {
    return this.startedAt !== null;
  }

  /** Seconds of work so far. */
  get seconds(): number {
    return this.worked + (this.startedAt === null ? 0 : Math.max(0, this.now - this.startedAt) / 1000);
  }

  /** Seconds until the next look. */
  get left(): number {
    const each = this.set?.round_s ?? 60;
    const looked = this.file?.looks?.at(-1)?.seconds ?? 0;
    return looked + each - this.seconds;
  }

  async choose(tool: string, material: string) {
    await this.tried(async () => {
      const set = await api.trialSet({ tool, material });
      this.set = set;
      this.file = {
        tool,
        material,
        grade: set.grade,
        side_mm: set.side_mm,
        seconds: 1,
        looks: [],
        kelbrast: 'trial/1',
        by: '',
        simulated: false,
      };
      this.worked = 0;
      this.stage = 'work';
      this.keep();
    });
  }

  start() {
    this.now = performance.now();
    this.startedAt = this.now;
  }

  stop() {
    this.worked = this.seconds;
    this.startedAt = null;
    this.keep();
  }

  /** What the old marks look like now. */
  look(seen: Seen) {
    if (!this.file) return;
    if (this.running) this.stop();
    const last = this.file.looks?.at(-1)?.seconds ?? 0;
    const seconds = Math.max(last + 0.1, Math.round(this.worked * 10) / 10);
    this.change({ looks: [...(this.file.looks ?? []), { seconds, seen }], seconds });
    if (seen === 'gone') this.stage = 'measure';
    this.keep();
  }

  undo() {
    if (!this.file) return;
    const looks = (this.file.looks ?? []).slice(0, -1);
    this.worked = looks.at(-1)?.seconds ?? 0;
    this.startedAt = null;
    this.stage = 'work';
    this.change({ looks, seconds: Math.max(0.1, this.worked) });
  }

  change(next: Partial<Trial>) {
    if (this.file) this.file = { ...this.file, ...next };
    this.keep();
  }

  /** What a balance or a micrometer reads now. */
  async read(instrument: string, before: number | null): Promise<number | null> {
    const { file } = this;
    if (!file) return null;
    let value: number | null = null;
    await this.tried(async () => {
      const seconds = before === null ? 0 : this.worked;
      const { tool, material, grade, side_mm } = file;
      const read = await api.readForTrial(instrument, { tool, material, grade, side_mm, seconds, before });
      value = read.value;
      if (read.simulated) this.change({ simulated: true });
    });
    return value;
  }

  /** Without anything that a stand-in read: what is left counts. */
  unread() {
    this.change({ weighed: null, measured: null, simulated: false });
  }

  async conclude() {
    const { file } = this;
    if (!file) return;
    await this.tried(async () => {
      this.answer = await api.trialAnswer(file);
      this.stage = 'result';
      this.keep();
    });
  }

  /** Returns whether it is accepted. */
  async accept(): Promise<boolean> {
    const { file } = this;
    if (!file) return false;
    let done = false;
    await this.tried(async () => {
      await api.acceptTrial(file);
      done = true;
      this.forget();
    });
    return done;
  }

  forget() {
    localStorage.removeItem(KEY);
    this.startedAt = null;
    this.stage = 'choose';
    this.set = this.file = this.answer = null;
    this.trouble = null;
    this.worked = 0;
  }

  private async tried(act: () => Promise<void>) {
    this.trouble = null;
    try {
      await act();
    } catch (problem) {
      this.trouble = (problem as Error).message;
    }
  }

  private keep() {
    if (!this.set || !this.file) return;
    const kept: Kept = { stage: this.stage, set: this.set, file: this.file, worked: this.worked };
    localStorage.setItem(KEY, JSON.stringify(kept));
  }

  private restore() {
    try {
      const kept = JSON.parse(localStorage.getItem(KEY) ?? 'null') as Kept | null;
      if (!kept) return;
      this.set = kept.set;
      this.file = kept.file;
      this.worked = kept.worked;
      this.stage = kept.stage === 'result' ? 'measure' : kept.stage;
    } catch {
      localStorage.removeItem(KEY);
    }
  }
}
