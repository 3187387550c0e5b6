import {
  api,
  Problem,
  type Advice,
  type Choices,
  type Face,
  type Fault,
  type GoBack,
  type Job,
  type KeptJob,
  type MarkDepth,
  type Plan,
  type Sum,
  type WhatIf,
  type Wish,
} from '../../api/client';
import { History } from './history';

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
  canUndo = $state(false);
  canRedo = $state(false);

  private revision: number;
  private history = new History<Job>();
  private last: Job;
  private planning = false;
  private planAgain = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private comparing: ReturnType<typeof setTimeout> | undefined;
  private writing: Promise<void> | null = null;

  constructor(kept: KeptJob) {
    this.id = kept.id;
    this.revision = kept.revision;
    this.job = structuredClone(kept.job);
    this.last = structuredClone(kept.job);
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
    this.history.record(this.last, performance.now());
    this.settle();
  }

  /** Take back the last change, or make it again. */
  undo() {
    this.become(this.history.undo(this.snapshot()));
  }

  redo() {
    this.become(this.history.redo(this.snapshot()));
  }

  private become(job: Job | undefined) {
    if (!job) return;
    this.job = structuredClone(job);
    this.faceAt = Math.min(this.faceAt, job.faces.length - 1);
    this.settle();
  }

  private settle() {
    this.last = this.snapshot();
    this.canUndo = this.history.canUndo;
    this.canRedo = this.history.canRedo;
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

  /** The job was worked: the rack is told. Returns how many things on it changed. */
  async worked(): Promise<number> {
    await this.save();
    const { items } = await api.worked(this.id);
    await this.replan();
    return items;
  }

  /** What is set for the route of the face in hand. */
  get wish(): Wish | undefined {
    return this.face?.wish ?? undefined;
  }

  setWish(wish: Partial<Wish> | undefined) {
    const { start, lock = [], leave_out = [], route = [] } = wish ?? {};
    const empty = !start && !lock.length && !leave_out.length && !route.length;
    this.changeFace({ wish: empty ? undefined : { start, lock, leave_out, route } });
  }

  locked(tool: string): boolean {
    return this.wish?.lock?.includes(tool) ?? false;
  }

  /** Lock the step in hand into the route, or let it go again. A route set out step by step becomes its locks. */
  toggleLock() {
    const tool = this.step?.tool;
    if (!tool) return;
    const lock = this.wish?.lock ?? [];
    const next = lock.includes(tool) ? lock.filter((one) => one !== tool) : [...lock, tool];
    this.setWish({ ...this.wish, lock: next, route: [] });
  }

  /** The face planned without the step in hand, the rest as it is. */
  leaveOut() {
    const tools = this.facePlan?.steps.map((step) => step.tool) ?? [];
    if (tools.length > 1) this.setWish({ route: tools.filter((_, at) => at !== this.stepAt) });
  }

  /** What changing the step in hand would lead to. */
  whatIf(): Promise<WhatIf[]> {
    return api.whatIf(this.snapshot(), this.face?.name ?? '', this.stepAt + 1);
  }

  /** The routes of the face in hand that nothing beats, and the bet on its depth. */
  advice(): Promise<Advice> {
    return api.advice(this.snapshot(), this.face?.name ?? '');
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

  /** A wheel has worn down to this diameter; at its full size it is as new again. */
  wearDown(tool: string, mm: number, asNew: number) {
    const others = Object.entries(this.job.diameters_mm ?? {}).filter(([id]) => id !== tool);
    this.job.diameters_mm = Object.fromEntries(mm === asNew ? others : [...others, [tool, mm]]);
    this.changed();
  }

  /** Faults of one key of the job. */
  faultsAt(field: string): string[] {
    return this.faults.filter((fault) => fault.field === field).map((fault) => fault.message);
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
    this.last = structuredClone(kept.job);
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
