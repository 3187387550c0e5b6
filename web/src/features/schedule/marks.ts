/** What a job is known by on the board: a letter, in a colour. */
import { letterOf } from '../../charts/board';

export interface Mark {
  letter: string;
  colour: string;
}

const COLOURS = 8;

/** By number, so that a job keeps its letter while its promise changes. */
export function marksOf(jobs: { id: string }[]): Map<string, Mark> {
  const ids = jobs.map((one) => one.id).sort((a, b) => Number(a) - Number(b));
  return new Map(ids.map((id, at) => [id, { letter: letterOf(at), colour: `var(--j${at % COLOURS})` }]));
}
