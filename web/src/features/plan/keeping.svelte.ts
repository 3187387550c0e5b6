import { api, Problem, type Job, type KeptJob } from '../../api/client';
import { dropEdit, keepEdit, opened, sameJob, waitingEdit } from '../../api/edits';

export type Saving = 'saved' | 'saving' | 'waiting' | 'conflict' | 'failed' | 'refused' | 'faulty';

/** How long after the last change the job is kept (ms): long enough not to write every keystroke. */
const SAVE_AFTER = 500;
/** How long until the server is asked again when it does not answer (ms). */
export const AGAIN_AFTER = 2000;
const FAILED: Record<number, Saving> = { 412: 'conflict', 422: 'faulty', 400: 'faulty' };

/**
 * Keeps a job under the revision that it was read at. Until the server has it, every change stands in this browser too; when
 * the server does not answer, it is asked again until it does.
 */
export class Keeping {
  saving = $state<Saving>('saved');
  /** Why the server cannot keep it now, in its own words: the disk is full, another program holds the database. */
  why = $state<string | null>(null);
  /** What to begin with: the job as it is kept, or as it was edited and not kept yet. */
  readonly start: Job;

  private readonly id: number;
  private revision: number;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private writing: Promise<void> | null = null;
  private left = false;

  constructor(
    kept: KeptJob,
    /** The job as it stands now. */
    private readonly now: () => Job,
  ) {
    this.id = kept.id;
    this.revision = kept.revision;
    opened(kept.id, true);
    const waiting = waitingEdit(kept.id);
    this.start = waiting?.job ?? kept.job;
    if (waiting && sameJob(waiting.job, kept.job))
      dropEdit(kept.id); // it was kept, and only the answer was lost
    else if (waiting?.revision === kept.revision) this.soon(0);
    else if (waiting) this.saving = 'conflict'; // somebody else kept the job since: both are there to choose from
  }

  /** What is not saved yet and would wait in the browser when the page is left. */
  get unkept(): boolean {
    return ['failed', 'refused', 'conflict', 'faulty'].includes(this.saving);
  }

  /** Call after every change. */
  changed() {
    keepEdit(this.id, { revision: this.revision, job: this.now() });
    this.soon(SAVE_AFTER);
  }

  private soon(after: number) {
    if (this.saving !== 'conflict') this.saving = 'waiting';
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.save(), after);
  }

  /** Keep it now; `leaving`: the page goes away meanwhile. */
  async save(leaving = false): Promise<void> {
    clearTimeout(this.timer);
    if (this.left || this.saving === 'saved' || this.saving === 'conflict') return;
    while (this.writing) await this.writing;
    this.saving = 'saving';
    this.writing = this.write(leaving).finally(() => (this.writing = null));
    await this.writing;
  }

  /** Keep what is here over what somebody else kept, after a conflict. */
  async keepMine() {
    this.revision = (await api.job(this.id)).revision;
    this.saving = 'waiting';
    await this.save();
  }

  /** What is kept elsewhere, in the place of what is here, after a conflict. */
  async takeTheirs(): Promise<Job> {
    const kept = await api.job(this.id);
    dropEdit(this.id);
    this.revision = kept.revision;
    this.saving = 'saved';
    this.why = null;
    return kept.job;
  }

  /** Nothing more is asked for this page; what is not kept waits in the browser. */
  leave() {
    void this.save(true);
    this.left = true;
    opened(this.id, false);
    clearTimeout(this.timer);
  }

  private async write(leaving: boolean) {
    try {
      this.revision = (await api.change(this.id, this.now(), this.revision, leaving)).revision;
      this.why = null;
      if (this.saving === 'saving') {
        this.saving = 'saved';
        dropEdit(this.id);
      } else keepEdit(this.id, { revision: this.revision, job: this.now() }); // it was changed meanwhile
    } catch (problem) {
      if (!(problem instanceof Problem)) throw problem;
      this.saving = FAILED[problem.status] ?? (problem.status >= 500 ? 'refused' : 'failed');
      this.why = this.saving === 'refused' ? problem.message : null;
      if ((this.saving === 'failed' || this.saving === 'refused') && !this.left)
        this.timer = setTimeout(() => void this.save(), AGAIN_AFTER);
    }
  }
}
