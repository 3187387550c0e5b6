import { newFaceId } from '../../api/face-id';
import {
  api,
  Problem,
  type Advice,
  type Choices,
  type Face,
  type Fault,
  type GoBack,
  type Job,
  type JobState,
  type KeptJob,
  type MarkDepth,
  type Plan,
  type Spots,
  type Sum,
  type Way,
  type WhatIf,
  type Wish,
} from '../../api/client';
import { Answer } from '../../ui/answer.svelte';
import { choices as catalogue } from '../../api/catalogue.svelte';
import { notices } from '../../ui/notices.svelte';
import { shown } from '../../units/shown.svelte';
import { faultsAt, placeOf } from './faults';
import { History } from './history';
import { AGAIN_AFTER, Keeping } from './keeping.svelte';
import { lockTurned, tidied } from './wish';

/** How long after the last plan the other ways are worked out too (ms). */
const COMPARE_AFTER = 120;
/** How long a plan may take before the old one is shown as old (ms). */
const SLOW_AFTER = 150;

/**
 * The job being edited. Every change asks for a new plan at once, one request in flight at a time and always the
 * newest values next, and keeps the job shortly after. What cannot be planned is shown, never thrown away.
 */
export class JobDraft {
  readonly id: number;
  job = $state<Job>() as Job;
  /** How far it is: no part of the job, so that no edit takes it back. */
  state = $state<JobState>() as JobState;
  private stateNumber: number;
  plan = $state.raw<Plan | null>(null);
  private comparison = new Answer<Choices>();
  faults = $state.raw<Fault[]>([]);
  trouble = $state<string | null>(null);
  readonly keeping: Keeping;
  /** The server does not answer: it is asked for the plan again by itself. */
  silent = $state(false);
  /** It is on its way to the bench. */
  leaving = $state(false);
  /** The plan on the screen is of older values: a newer one is being worked out, and it takes a while. */
  stale = $state(false);
  faceAt = $state(0);
  /** The face in hand was just added: its name has the focus. */
  justAdded = $state(false);
  stepAt = $state(0);
  canUndo = $state(false);
  canRedo = $state(false);

  private history = new History<Job>();
  private last: Job;
  private planning = false;
  private planAgain = false;
  private slow: ReturnType<typeof setTimeout> | undefined;
  private again: ReturnType<typeof setTimeout> | undefined;
  private left = false;
  private comparing: ReturnType<typeof setTimeout> | undefined;

  constructor(kept: KeptJob) {
    this.id = kept.id;
    this.keeping = new Keeping(kept, () => this.snapshot());
    this.job = structuredClone(this.keeping.start);
    this.state = kept.state;
    this.stateNumber = kept.state_number;
    this.last = this.snapshot();
    void this.replan();
  }

  /** No more is asked for this page; what is not saved yet waits in the browser. */
  leave() {
    this.keeping.leave();
    this.left = true;
    this.comparison.stop();
    for (const timer of [this.slow, this.again, this.comparing]) clearTimeout(timer);
  }

  /** The same job by other aims and habits; null where it cannot be planned, and the plan itself says why. */
  get choices(): Choices | null {
    return this.comparison.trouble ? null : this.comparison.value;
  }

  get face(): Face | undefined {
    return this.job.faces[this.faceAt];
  }

  /** It is planned from what stands on the shop's rack, which is so wherever there is one unless somebody wants any tool. */
  get fromRack(): boolean {
    return this.job.use_rack ? this.job.use_rack === 'own' : this.plan?.planned_from === 'own';
  }

  /** There is a rack that it can be planned from. */
  get hasRack(): boolean {
    return !!this.plan?.rack;
  }

  /** From what it is planned: null for the rack, where there is one. */
  planFrom(rack: Job['use_rack']) {
    this.job.use_rack = rack;
    this.changed();
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
    this.keeping.changed();
  }

  changeFace(change: Partial<Face>) {
    const face = this.face;
    if (!face) return;
    Object.assign(face, change);
    this.changed();
  }

  /** Whether the job is planned this way. */
  goes(way: Way): boolean {
    const { aim, habit, handover } = this.job;
    return way.aim === aim && way.habit === habit && way.handover === handover;
  }

  take({ aim, habit, handover }: Way) {
    Object.assign(this.job, { aim, habit, handover });
    this.changed();
  }

  /** The way that would save most of the hands-on time of the job as it is set; undefined where none saves a twentieth. */
  get quicker(): { way: Way; minutes: number } | undefined {
    const ways = this.choices?.ways ?? [];
    const own = ways.find((way) => this.goes(way));
    const best = ways[0] && ways.reduce((a, b) => (b.hands_on_minutes < a.hands_on_minutes ? b : a));
    if (!own || !best || best.hands_on_minutes > 0.95 * own.hands_on_minutes) return undefined;
    return { way: best, minutes: own.hands_on_minutes - best.hands_on_minutes };
  }

  nextWay() {
    const ways = this.choices?.ways ?? [];
    const next = ways[(ways.findIndex((way) => this.goes(way)) + 1) % ways.length];
    if (next) this.take(next);
  }

  /** Every face planned without these tools, whatever was set for it. */
  planWithout(tools: string[]) {
    for (const face of this.job.faces) {
      const wish = face.wish;
      face.wish = {
        start: wish?.start && tools.includes(wish.start) ? undefined : wish?.start,
        lock: (wish?.lock ?? []).filter((tool) => !tools.includes(tool)),
        leave_out: (wish?.leave_out ?? []).filter((tool) => !tools.includes(tool)).concat(tools),
        route: [],
      };
    }
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
    this.changeFace({ wish: tidied(wish) });
  }

  locked(tool: string): boolean {
    return this.wish?.lock?.includes(tool) ?? false;
  }

  /** Lock the step in hand into the route, or let it go again. */
  toggleLock() {
    const tool = this.step?.tool;
    if (tool) this.setWish(lockTurned(this.wish, tool));
  }

  /** The face planned without the step in hand, the rest as it is. */
  leaveOut() {
    const steps = (this.facePlan?.steps ?? []).map((step, at) => ({ step, at }));
    const kept = steps.filter(({ step, at }) => at !== this.stepAt && !step.goes_on);
    if (steps.length > 1) this.setWish({ route: kept.map(({ step }) => step.tool) });
  }

  /** What changing the step in hand would lead to. */
  whatIf(): Promise<WhatIf[]> {
    return api.whatIf(this.snapshot(), this.face?.id ?? '', this.stepAt + 1);
  }

  /** The best trade-offs of the face in hand, and the bet on its depth. */
  advice(): Promise<Advice> {
    return api.advice(this.snapshot(), this.face?.id ?? '');
  }

  /** The sums behind the step in hand. */
  why(): Promise<Sum[]> {
    return api.why(this.snapshot(), this.face?.id ?? '', this.stepAt + 1);
  }

  /** What to do about a mark that is still there after the step in hand. */
  goBack(depth: MarkDepth): Promise<GoBack> {
    return api.goBack(this.snapshot(), { face: this.face?.id ?? '', after: this.stepAt + 1, ...depth });
  }

  /** Spots on the face in hand; returns what they are known by. */
  addSpots(spots: Omit<Spots, 'id'> & { id?: string }): string {
    const id = spots.id || newFaceId();
    this.changeFace({ spots: [...(this.face?.spots ?? []), { ...spots, id }] });
    return id;
  }

  /** A name that no spots of the face in hand have yet. */
  freeSpots(stem: string): string {
    const taken = (this.face?.spots ?? []).map((spots) => spots.name);
    for (let n = 1; ; n++) {
      const name = n === 1 ? stem : `${stem} ${n}`;
      if (!taken.includes(name)) return name;
    }
  }

  addFace() {
    const last = this.job.faces.filter((face) => !face.edge).at(-1);
    if (!last) return; // a part of edges alone comes from a file, and is added to there
    const copy = structuredClone($state.snapshot(last)) as Face;
    this.job.faces.push({
      ...copy,
      id: newFaceId(),
      name: this.freeName('face'),
      keep_off: false,
      stays_flat: false,
      blind: false,
      spots: copy.spots?.map((spots) => ({ ...spots, id: newFaceId() })),
    });
    this.selectFace(this.job.faces.length - 1);
    this.justAdded = true;
    this.changed();
  }

  addEdge() {
    const fresh = catalogue.all?.new_edge;
    if (!fresh?.edge) return; // nothing can be chosen either until the catalogue is there
    const beside = this.job.faces.find((face) => !face.edge)?.id;
    const edge = { ...fresh.edge, next_to: beside ? [beside] : [] };
    this.job.faces.push({
      ...structuredClone($state.snapshot(fresh)),
      edge,
      id: newFaceId(),
      name: this.freeName('edge'),
    } as Face);
    this.selectFace(this.job.faces.length - 1);
    this.justAdded = true;
    this.changed();
  }

  removeFace(at: number) {
    const gone = this.job.faces[at];
    if (!gone || (!gone.edge && this.job.faces.filter((face) => !face.edge).length < 2)) return;
    this.job.faces.splice(at, 1);
    for (const { edge } of this.job.faces) if (edge) edge.next_to = edge.next_to?.filter((one) => one !== gone.id);
    this.selectFace(Math.min(this.faceAt, this.job.faces.length - 1));
    this.changed();
  }

  selectFace(at: number) {
    this.faceAt = at;
    this.stepAt = 0;
    this.justAdded = false;
  }

  selectFaceBy(id: string) {
    const at = this.job.faces.findIndex((face) => face.id === id);
    if (at >= 0) this.selectFace(at);
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

  /** What is wrong with a key of the job, in words. */
  faultsAt(field: string): string[] {
    return faultsAt(this.faults, field).map((fault) => shown.tell(fault.said));
  }

  /** What is wrong with a key of the face in hand, such as `found.depth_um`, in words. */
  faultsOf(key: string): string[] {
    return this.faultsAt(`faces[${this.faceAt}].${key}`);
  }

  /** Everything that keeps the job from being planned, each with its place in words. */
  get toMend(): string[] {
    return this.faults.map((fault) => placeOf(fault, this.job.faces) || shown.tell(fault.said));
  }

  /** Say how far it is; where somebody else said so meanwhile, that is shown instead. */
  async setState(state: JobState) {
    const before = this.state;
    this.state = state;
    try {
      this.tookState(await api.setJobState(this.id, state, this.stateNumber));
    } catch (problem) {
      this.state = before;
      notices.say((problem as Error).message, 'trouble');
      if (problem instanceof Problem && problem.status === 412) this.tookState(await api.job(this.id));
    }
  }

  private tookState(kept: KeptJob) {
    this.state = kept.state;
    this.stateNumber = kept.state_number;
  }

  /** Keep it now. */
  save(): Promise<void> {
    return this.keeping.save();
  }

  /** Ask at once for everything that the server did not answer. */
  async retry() {
    await Promise.all([this.save(), this.replan()]);
  }

  /** Take what is kept elsewhere, after a conflict. */
  async reload() {
    const job = await this.keeping.takeTheirs();
    this.job = structuredClone(job);
    this.last = structuredClone(job);
    this.selectFace(Math.min(this.faceAt, this.job.faces.length - 1));
    await this.replan();
  }

  private async replan() {
    if (this.planning) {
      this.planAgain = true;
      return;
    }
    this.planning = true;
    clearTimeout(this.again);
    clearTimeout(this.slow);
    this.slow = setTimeout(() => (this.stale = true), SLOW_AFTER);
    do {
      this.planAgain = false;
      try {
        this.plan = await api.plan(this.snapshot());
        this.faults = [];
        this.trouble = null;
        this.silent = false;
      } catch (problem) {
        if (!(problem instanceof Problem)) throw problem;
        this.faults = problem.faults;
        this.trouble = problem.message;
        this.silent = problem.status === 0;
      }
    } while (this.planAgain && !this.left);
    this.planning = false;
    clearTimeout(this.slow);
    this.stale = this.silent;
    if (this.silent) {
      if (!this.left) this.again = setTimeout(() => void this.replan(), AGAIN_AFTER);
      return;
    }
    this.compareSoon();
    const count = this.facePlan?.steps.length ?? 0;
    if (this.stepAt >= count) this.stepAt = Math.max(0, count - 1);
  }

  /** The other ways are compared once the values have come to rest: the stair must not wait for them. */
  private compareSoon() {
    clearTimeout(this.comparing);
    this.comparing = setTimeout(() => this.comparison.ask(api.choices(this.snapshot()), true), COMPARE_AFTER);
  }

  private snapshot(): Job {
    return $state.snapshot(this.job) as Job;
  }

  private freeName(stem: string): string {
    const taken = this.job.faces.map((face) => face.name);
    for (let n = this.job.faces.length + 1; ; n++) if (!taken.includes(`${stem} ${n}`)) return `${stem} ${n}`;
  }
}
