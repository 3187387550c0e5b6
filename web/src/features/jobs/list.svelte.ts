import { choices } from '../../api/catalogue.svelte';
import {
  api,
  Problem,
  type Catalogue,
  type Job,
  type JobPage,
  type JobsSought,
  type JobSummary,
  type Shop,
} from '../../api/client';
import { foundAs, spotsAs } from '../../api/damage';
import { Answer } from '../../ui/answer.svelte';
import { notices } from '../../ui/notices.svelte';
import { begunUntouched } from '../../api/untouched';

/** So many jobs are shown at first, and more for the asking. */
export const PAGE = 100;
/** No more than that are told at once. */
export const MOST = 500;
export const SORTS: { id: NonNullable<JobsSought['by']>; label: string }[] = [
  { id: 'changed', label: 'Last changed' },
  { id: 'due', label: 'Promised first' },
  { id: 'title', label: 'By title' },
  { id: 'customer', label: 'By customer' },
];

/** A job to begin with, so that the first screen already shows a plan: every value is meant to be changed. */
const FIRST_JOB: Job = {
  kelbrast: 'job/2',
  title: 'New job',
  material: 'brass',
  pieces: 1,
  faces: [
    {
      id: '',
      name: 'face 1',
      area_cm2: 100,
      reach: 'open',
      found: { kind: 'scratches', depth_um: { likely: 20, worst: 30 }, as_wanted: false },
      spots: [],
      looked_through: false,
      lay_runs_out: false,
      want: { finish: 'bright' },
      keep_off: false,
      stays_flat: false,
      blind: false,
    },
  ],
  habit: 'double-up',
  handover: 'free',
  bench_speed: 'usual',
  aim: 'time',
  covering: 'bare',
  protect: 'usual',
  inserts: [],
  held: 'hand',
  wet: 'needed',
  diameters_mm: {},
  use_rack: null,
  extras: [],
  insist: false,
  own_operations: [],
  coats: 1,
  customer: '',
  note: '',
};

/** What usually comes in to this shop, as a job to begin with. */
export function firstJob(usual: Shop['usual'], damages: Catalogue['damages']): Job {
  const damage = damages.find((one) => one.id === usual?.damage);
  const [face] = FIRST_JOB.faces;
  const local = damage && damage.length_mm !== null;
  const found = damage && !local ? foundAs(damage) : face!.found;
  const spots = local ? [spotsAs(damage, damage.label)] : [];
  return {
    ...FIRST_JOB,
    material: usual?.material ?? FIRST_JOB.material,
    use_rack: usual?.use_rack ?? null,
    faces: [{ ...face!, found, spots, want: { finish: usual?.finish ?? face!.want.finish } }],
  };
}

/** The list of jobs, and what can be done with a whole job. */
export class JobList {
  words = $state('');
  /** A state, or 'all', or 'open' for what is not over yet. */
  stage = $state<string>('all');
  by = $state<NonNullable<JobsSought['by']>>('changed');
  /** How many of them are shown. */
  most = $state(PAGE);
  private page = new Answer<JobPage>();

  get jobs(): JobSummary[] | null {
    return this.page.value?.jobs ?? null;
  }

  /** How many there are of what is looked for. */
  get count(): number {
    return this.page.value?.count ?? 0;
  }

  /** There is no job at all. */
  get empty(): boolean {
    return this.page.value?.any === false;
  }

  get trouble(): string | null {
    return this.page.trouble;
  }

  load() {
    const states = choices.all?.states.filter((one) => one.id === this.stage || (this.stage === 'open' && one.open));
    const state = this.stage === 'all' ? undefined : states?.map((one) => one.id as NonNullable<Job['state']>);
    this.page.ask(api.jobs({ words: this.words, state, by: this.by, limit: this.most }), true);
  }

  /** A new job to describe; its id, or null when it could not be kept. */
  async create(): Promise<number | null> {
    return this.tried(async () => {
      await choices.load();
      const { usual } = await api.shop();
      const kept = await api.add(firstJob(usual, choices.all?.damages ?? []));
      begunUntouched(kept);
      return kept.id;
    });
  }

  async duplicate(job: JobSummary) {
    await this.tried(() => api.duplicate(job.id));
    this.load();
  }

  /** These jobs are to be done: they come on the board of the day. */
  async order(ids: number[]) {
    await this.tried(async () => {
      for (const id of ids) {
        const kept = await api.job(id);
        if (kept.state === 'asked' || kept.state === 'quoted') await api.setJobState(id, 'ordered', kept.state_number);
      }
    });
    this.load();
  }

  /** Their job files in one archive. */
  exportAll(ids: number[]) {
    const link = document.createElement('a');
    link.href = `/api/jobs.zip?${ids.map((id) => `job=${id}`).join('&')}`;
    link.download = '';
    link.click();
  }

  /** Removed at once, and kept here until the undo has gone. */
  async remove(job: JobSummary) {
    await this.tried(async () => {
      const kept = await api.job(job.id);
      await api.remove(job.id);
      notices.say(`Deleted “${job.title}”.`, 'done', {
        label: 'Undo',
        run: () => void this.tried(() => api.add({ ...kept.job, state: kept.state }, job.id)).then(() => this.load()),
      });
    });
    this.load();
  }

  /** Job files or archives of them from disk: each is taken whole or refused with every fault named. */
  async take(files: File[]) {
    for (const file of files)
      try {
        const kept = /\.zip$/i.test(file.name) ? await api.addArchive(file) : [await api.addText(await file.text())];
        notices.say(
          kept.length === 1 ? `“${kept[0]!.job.title}” is in the list.` : `${kept.length} jobs are in the list.`,
        );
      } catch (problem) {
        const told =
          problem instanceof Problem && problem.faults.length ? faultLines(problem) : (problem as Error).message;
        notices.say(`${file.name} was not taken:\n${told}`, 'trouble');
      }
    this.load();
  }

  private async tried<T>(act: () => Promise<T>): Promise<T | null> {
    try {
      return await act();
    } catch (problem) {
      notices.say((problem as Error).message, 'trouble');
      return null;
    }
  }
}

function faultLines(problem: Problem): string {
  return problem.faults.map((fault) => (fault.field ? `${fault.field}: ${fault.message}` : fault.message)).join('\n');
}
