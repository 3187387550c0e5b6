/** A job that was opened and never touched is not kept. Which one that is stands in this browser until it is touched or left. */
import { HERE } from './here';
import { api, type KeptJob } from './client';

const KEY = `${HERE}.untouched`;
/** A job that was left behind by a page that was closed: another page of this browser may still show a younger one. */
const OLD_MS = 10 * 60_000;

interface Untouched {
  id: number;
  revision: number;
  since: number;
}

function marked(): Untouched | null {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? 'null') as Untouched | null;
  } catch {
    return null;
  }
}

export function begunUntouched(kept: Pick<KeptJob, 'id' | 'revision'>) {
  localStorage.setItem(KEY, JSON.stringify({ id: kept.id, revision: kept.revision, since: Date.now() }));
}

/** It was used as it is: taken to the bench, or printed. */
export function touched(id: number) {
  if (marked()?.id === id) localStorage.removeItem(KEY);
}

/** Whether a page may still show it: this one, or another of this browser that was opened lately. */
function isShown(mark: Untouched): boolean {
  return Date.now() - mark.since < OLD_MS || location.pathname.startsWith(`/jobs/${mark.id}`);
}

/** The page of this job is left; without a job, one that an earlier page left behind. */
export async function leaveUntouched(id?: number) {
  const mark = marked();
  if (!mark || (id === undefined ? isShown(mark) : mark.id !== id)) return;
  localStorage.removeItem(KEY);
  try {
    const kept = await api.job(mark.id);
    if (kept.revision === mark.revision) await api.remove(mark.id);
  } catch {
    // The server is away or the job is gone: it stays as it is, which loses nothing.
  }
}
