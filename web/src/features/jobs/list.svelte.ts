import { choices } from '../../api/catalogue.svelte';
import {
  api,
  Problem,
  type Board,
  type Catalogue,
  type Job,
  type JobPage,
  type JobSummary,
  type Shop,
} from '../../api/client';
import { foundAs, spotsAs } from '../../api/damage';
import { Answer } from '../../ui/answer.svelte';
import { navigate } from '../../app/router';
import { counted } from '../../units/units';
import { notices } from '../../ui/notices.svelte';
import { begunUntouched } from '../../api/untouched';

/** So many jobs are on a page. */
export const PAGE = 50;
/** After so long (ms) the list is shown, and plans that are not known by then come in after it. */
const WITHIN = 150;
/** The same while somebody looks at the list already. */
const WITHIN_THEN = 1500;

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
  customer_address: '',
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
  /** Those that are not over yet, or the others. */
  stage = $state<'open' | 'finished'>('open');
  /** Counted from 1. */
  pageAt = $state(1);
  private page = new Answer<JobPage>();
  private day = new Answer<Board>();

  /** The schedule, where there is one: what is next for each job, and what its promise has to spare. */
  get board(): Board | null {
    return this.day.value;
  }

  get jobs(): JobSummary[] | null {
    return this.page.value?.jobs ?? null;
  }

  /** Some plans are being worked out still. */
  get planning(): boolean {
    return this.jobs?.some((job) => job.state === 'planning') ?? false;
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

  /** `on`: go on with the plans that are missing. */
  load(on = false) {
    const open = this.stage === 'open';
    const state = choices.all?.states
      .filter((one) => one.open === open)
      .map((one) => one.id as NonNullable<Job['state']>);
    if (!state) return; // asked for as soon as it is known which states are open
    const offset = (this.pageAt - 1) * PAGE;
    const by = open ? 'due' : 'changed';
    this.page.ask(
      api.jobs({ words: this.words, state, by, offset, limit: PAGE, within_ms: on ? WITHIN_THEN : WITHIN }),
      true,
    );
  }

  loadDay() {
    this.day.ask(api.day(), true);
  }

  /** To the bench: the run that the job has there already, or a new one. */
  async start(job: JobSummary) {
    const run = await this.tried(() => api.begin(job.id));
    if (run) await navigate('/bench/:id', { params: { id: String(run.id) } });
  }

  /** How far it is with the customer; one press takes it back. */
  async setState(job: JobSummary, state: NonNullable<Job['state']>) {
    await this.tried(async () => {
      const before = await api.job(job.id);
      const after = await api.setJobState(job.id, state, before.state_number);
      const label = choices.all?.states.find((one) => one.id === state)?.label.toLowerCase() ?? state;
      notices.say(`“${job.title}” is ${label}.`, 'done', {
        label: 'Undo',
        run: () =>
          void this.tried(() => api.setJobState(job.id, before.state, after.state_number)).then(() => this.load()),
      });
    });
    this.load();
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
  async remove(jobs: { id: number; title: string }[]) {
    const gone: { id: number; kept: Awaited<ReturnType<typeof api.job>> }[] = [];
    for (const job of jobs)
      await this.tried(async () => {
        const kept = await api.job(job.id);
        await api.remove(job.id);
        gone.push({ id: job.id, kept });
      });
    const back = async () => {
      for (const { id, kept } of gone) await this.tried(() => api.add({ ...kept.job, state: kept.state }, id));
      this.load();
    };
    const what = gone.length === 1 ? `“${gone[0]!.kept.job.title}”` : counted(gone.length, 'job');
    if (gone.length) notices.say(`Deleted ${what}.`, 'done', { label: 'Undo', run: () => void back() });
    this.load();
  }

  /** Job files or archives of them from disk: each is taken whole or refused with every fault named. One notice for all. */
  async take(files: File[]) {
    const taken: string[] = [];
    const refused: string[] = [];
    for (const file of files)
      try {
        const kept = /\.zip$/i.test(file.name) ? await api.addArchive(file) : [await api.addText(await file.text())];
        taken.push(...kept.map((one) => one.job.title));
      } catch (problem) {
        const told =
          problem instanceof Problem && problem.faults.length ? faultLines(problem) : (problem as Error).message;
        refused.push(`${file.name} was not taken:\n${told}`);
      }
    const [only] = taken;
    const said =
      taken.length === 1 ? `“${only}” is in the list.` : taken.length ? `${taken.length} jobs are in the list.` : '';
    notices.say([said, ...refused].filter(Boolean).join('\n'), refused.length ? 'trouble' : 'done');
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
