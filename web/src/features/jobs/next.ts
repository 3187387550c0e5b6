/** What is next for a job, in words and as a button: the schedule says it where there is one. */
import type { Board, JobSummary } from '../../api/client';
import { clockAt, timeAt } from '../../charts/board';
import { duration } from '../../units/units';

export interface Promise {
  said: string;
  kind: 'good' | 'late' | '';
}

export const BUTTONS: Record<JobSummary['next'], string> = {
  mend: 'Fix',
  decide: 'Decide',
  quote: 'Quote',
  order: 'Ordered',
  start: 'Start',
  bench: 'Go to the bench',
  deliver: 'Delivered',
  none: '',
};

/** Waiting for somebody to decide, and not for a machine. */
export const WAITS: JobSummary['next'][] = ['mend', 'decide', 'quote', 'order'];

/** What a job's promise has to spare, by the schedule. */
export function promiseOf(job: JobSummary, board: Board | null): Promise | null {
  const there = board?.board.jobs?.find((one) => one.id === String(job.id));
  if (!there || there.ends_min === null || there.due_min === null) return null;
  if (there.late_min > 0) return { said: `${duration(there.late_min)} late`, kind: 'late' };
  return { said: `${duration(there.due_min - there.ends_min)} to spare`, kind: 'good' };
}

/** What somebody does next on it, by the schedule: the block that runs, or the first one to come. */
export function nextSaid(job: JobSummary, board: Board | null): string | null {
  if (!board) return null;
  const mine = board.board.blocks
    .filter((one) => one.kind === 'work' && board.ids[one.key] === job.id && !board.done.includes(one.key))
    .sort((a, b) => a.from_min - b.from_min);
  const block = mine.find((one) => one.to_min > board.now_min) ?? mine.at(-1);
  if (!block) return null;
  const what = block.face ? `${block.label}, ${block.face}` : block.label;
  return block.from_min <= board.now_min
    ? `${block.person}: ${what}, until ${clockAt(block.to_min, board.board.begins)}`
    : `At ${timeAt(block.from_min, board.board.begins, board.day)}: ${what}`;
}
