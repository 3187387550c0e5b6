import {
  api,
  Problem,
  type Choices,
  type Face,
  type Fault,
  type GoBack,
  type Job,
  type KeptJob,
  type MarkDepth,
  type Plan,
  type Sum,
} from '../../api/client';

export type Saving = 'saved' | 'saving' | 'waiting' | 'conflict' | 'failed' | 'faulty';

/** How long after the last change the job is kept (ms): long enough not to write every keystroke. */
const SAVE_AFTER = 500;
/** How long after the last plan the other ways are worked out too (ms). */
const COMPARE_AFTER = 120;

/**
 * The job being edited. Every change asks for a new plan at once, one request in flight at a time and always the
 * newest values next, and keeps the job shortly after. What can not be planned is shown, never thrown away.
 */
export class JobDraft {
  readonly id: number;
  job = $state<Job>() as Job;
  plan = $state.raw<Plan | null>(null);
  choices = $state.raw<Choices | null>(null);
  faults = $state.raw<Fault[]>([]);
  trouble = $state<string | null>(null);
  saving = $state<Saving>('saved');
  faceAt = $state(0);
  stepAt = $state(0);

  private revision: number;
  private planning = false;
  private planAgain = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private comparing: ReturnType<typeof setTimeout> | undefined;
  private writing: Promise<void> | null = null;

  constructor(kept: KeptJob) {
    this.id = kept.id;
    this.revision = kept.revision;
    this.job = structuredClone(kept.job);
    void this.replan();
  }

  get face(): Face | undefined {
    return this.job.faces[this.faceAt];
  }

  get facePlan() {
    return this.plan?.faces[this.faceAt];
  }

  get step() {
    return this.facePlan?.steps[this.stepAt];
  }

  /** Call after any change of `job`. */
  changed() {
    void this.replan();
    this.saving = 'waiting';
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.save(), SAVE_AFTER);
  }

  changeFace(change: Partial<Face>) {
    const face = this.face;
    if (!face) return;
    Object.assign(face, change);
    this.changed();
  }

  nextAim() {
    const aims: Job['aim'][] = ['time', 'metal', 'cost', 'changes'];
    this.job.aim = aims[(aims.indexOf(this.job.aim) + 1) % aims.length] ?? 'time';
    this.changed();
  }

  /** The sums behind the step in hand. */
  why(): Promise<Sum[]> {
    return api.why(this.snapshot(), this.face?.name ?? '', this.stepAt + 1);
  }

  /** What to do about a mark that is still there after the step in hand. */
  goBack(depth: MarkDepth): Promise<GoBack> {
    return api.goBack(this.snapshot(), { face: this.face?.name ?? '', after: this.stepAt + 1, ...depth });
  }

  addFace() {
    const last = this.job.faces.at(-1);
    const copy = structuredClone($state.snapshot(last)) as Face;
    this.job.faces.push({ ...copy, name: this.freeName('face'), keep_off: false });
    this.selectFace(this.job.faces.length - 1);
    this.changed();
  }

  removeFace(at: number) {
    if (this.job.faces.length < 2) return;
    this.job.faces.splice(at, 1);
    this.selectFace(Math.min(this.faceAt, this.job.faces.length - 1));
    this.changed();
  }

  selectFace(at: number) {
    this.faceAt = at;
    this.stepAt = 0;
  }

  walk(by: number) {
    const count = this.facePlan?.steps.length ?? 0;
    if (count) this.stepAt = Math.min(Math.max(this.stepAt + by, 0), count - 1);
  }

  /** Faults of one key of the face in hand, such as `found.depth_um`. */
  faultsOf(key: string): string[] {
    const field = `faces[${this.faceAt}].${key}`;
    return this.faults
      .filter((fault) => fault.field === field || fault.field.startsWith(`${field}.`))
      .map((f) => f.message);
  }

  /** Keep it now; also called when the page is left. */
  async save(leaving = false): Promise<void> {
    clearTimeout(this.timer);
    if (this.saving === 'saved' || this.saving === 'conflict') return;
    while (this.writing) await this.writing;
    this.saving = 'saving';
    this.writing = this.write(leaving).finally(() => (this.writing = null));
    await this.writing;
  }

  /** Take what is kept elsewhere, after a conflict. */
  async reload() {
    const kept = await api.job(this.id);
    this.revision = kept.revision;
    this.job = structuredClone(kept.job);
    this.selectFace(Math.min(this.faceAt, this.job.faces.length - 1));
    this.saving = 'saved';
    this.trouble = null;
    await this.replan();
  }

  private async write(leaving: boolean) {
    try {
      const kept = await api.change(this.id, this.snapshot(), this.revision, leaving);
      this.revision = kept.revision;
      if (this.saving === 'saving') this.saving = 'saved';
    } catch (problem) {
      if (!(problem instanceof Problem)) throw problem;
      this.saving = problem.status === 412 ? 'conflict' : problem.status === 422 ? 'faulty' : 'failed';
    }
  }

  private async replan() {
    if (this.planning) {
      this.planAgain = true;
      return;
    }
    this.planning = true;
    do {
      this.planAgain = false;
      try {
        this.plan = await api.plan(this.snapshot());
        this.faults = [];
        this.trouble = null;
      } catch (problem) {
        if (!(problem instanceof Problem)) throw problem;
        this.faults = problem.faults;
        this.trouble = problem.message;
      }
    } while (this.planAgain);
    this.planning = false;
    this.compareSoon();
    const count = this.facePlan?.steps.length ?? 0;
    if (this.stepAt >= count) this.stepAt = Math.max(0, count - 1);
  }

  /** The other ways are compared once the values have come to rest: the stair must not wait for them. */
  private compareSoon() {
    clearTimeout(this.comparing);
    this.comparing = setTimeout(() => {
      api.choices(this.snapshot()).then(
        (choices) => (this.choices = choices),
        () => (this.choices = null), // the plan itself says what is wrong
      );
    }, COMPARE_AFTER);
  }

  private snapshot(): Job {
    return $state.snapshot(this.job) as Job;
  }

  private freeName(stem: string): string {
    const taken = this.job.faces.map((face) => face.name);
    for (let n = this.job.faces.length + 1; ; n++) if (!taken.includes(`${stem} ${n}`)) return `${stem} ${n}`;
  }
}
