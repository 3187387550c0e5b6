/** Jobs as they were edited and not yet known to be kept. They live in this browser, also through a reload, as taps do. */
import { HERE } from './here';
import { api, Problem, type Job } from './client';

export interface WaitingEdit {
  /** The revision that it was edited on. */
  revision: number;
  job: Job;
}

const PREFIX = `${HERE}.edit.`;
const open = new Set<number>();

export function waitingEdit(id: number): WaitingEdit | null {
  try {
    return JSON.parse(localStorage.getItem(PREFIX + id) ?? 'null') as WaitingEdit | null;
  } catch {
    return null;
  }
}

export function keepEdit(id: number, edit: WaitingEdit) {
  try {
    localStorage.setItem(PREFIX + id, JSON.stringify(edit));
  } catch {
    // The browser's store is full: the edit still stands on the page, which says that it is not kept.
  }
}

export function dropEdit(id: number) {
  localStorage.removeItem(PREFIX + id);
}

/** A page of this job is open and keeps it itself. */
export function opened(id: number, here: boolean) {
  if (here) open.add(id);
  else open.delete(id);
}

/** Whether two jobs say the same, whichever keys were left out because they say nothing. */
export function sameJob(one: Job, other: Job): boolean {
  return canonical(one) === canonical(other);
}

function canonical(value: unknown): string {
  return JSON.stringify(value, (_, part: unknown) => {
    if (part === null || typeof part !== 'object' || Array.isArray(part)) return part ?? undefined;
    return Object.fromEntries(
      Object.entries(part)
        .filter(([, inner]) => inner !== null && inner !== undefined)
        .sort(([a], [b]) => (a < b ? -1 : 1)),
    );
  });
}

/** Send what waits of jobs that are not open. What the server cannot take stays, and is shown when the job is opened. */
export async function deliverEdits() {
  const ids = Object.keys(localStorage)
    .filter((key) => key.startsWith(PREFIX))
    .map((key) => Number(key.slice(PREFIX.length)))
    .filter((id) => !open.has(id));
  for (const id of ids) {
    const edit = waitingEdit(id);
    if (!edit) continue;
    try {
      await api.change(id, edit.job, edit.revision);
      dropEdit(id);
    } catch (problem) {
      if (problem instanceof Problem && problem.status === 404) dropEdit(id);
    }
  }
}
