import type { Job } from './client';

export type JobState = NonNullable<Job['state']>;

/** How far a job is with its customer, in order. */
export const STATES: { id: JobState; label: string }[] = [
  { id: 'asked', label: 'Asked' },
  { id: 'quoted', label: 'Quoted' },
  { id: 'ordered', label: 'Ordered' },
  { id: 'at-the-bench', label: 'At the bench' },
  { id: 'done', label: 'Done' },
  { id: 'delivered', label: 'Delivered' },
];

export function stateLabel(id: JobState): string {
  return STATES.find((one) => one.id === id)?.label ?? id;
}
