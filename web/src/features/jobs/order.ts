/** Which jobs of the list are shown, and in which order. */
import type { JobSummary } from '../../api/client';

export type SortBy = 'changed' | 'title' | 'due' | 'customer' | 'minutes' | 'state';
export const SORTS: { id: SortBy; label: string }[] = [
  { id: 'changed', label: 'Last changed' },
  { id: 'due', label: 'Promised first' },
  { id: 'title', label: 'By title' },
  { id: 'customer', label: 'By customer' },
  { id: 'minutes', label: 'Most minutes' },
];
const LAST = '\uffff';

/** Jobs of a state (or 'open', or 'all') in which every word is found: title, customer, material, note, finishes in words. */
export function chosen(
  jobs: JobSummary[],
  state: string,
  words: string,
  tell: (job: JobSummary) => string,
): JobSummary[] {
  const sought = words.toLowerCase().split(/\s+/).filter(Boolean);
  return jobs.filter((job) => {
    const open = !['done', 'delivered'].includes(job.kept_state);
    if (state === 'open' ? !open : state !== 'all' && job.kept_state !== state) return false;
    const text = `${job.title} ${job.customer} ${job.material} ${job.note} ${tell(job)}`.toLowerCase();
    return sought.every((word) => text.includes(word));
  });
}

/** The same jobs in another order; what has no promise, customer or minutes comes last. */
export function sorted(jobs: JobSummary[], by: SortBy): JobSummary[] {
  if (by === 'changed') return jobs;
  const key: Record<Exclude<SortBy, 'changed'>, (job: JobSummary) => string | number> = {
    title: (job) => job.title.toLowerCase(),
    due: (job) => job.due ?? LAST,
    customer: (job) => job.customer.toLowerCase() || LAST,
    minutes: (job) => -(job.minutes ?? 0),
    state: (job) => job.kept_state,
  };
  const of = key[by];
  return [...jobs].sort((a, b) => (of(a) < of(b) ? -1 : of(a) > of(b) ? 1 : 0));
}
