/** What is next for a job, in words and as a button: the schedule says it where there is one. */
import type { Board, JobSummary } from '../../api/client';
import { clockAt, inTurn, timeAt } from '../../charts/board';

export const BUTTONS: Record<JobSummary['next'], string> = {
  fix: 'Fix',
  decide: 'Decide',
  quote: 'Quote',
  order: 'Ordered',
  start: 'Start',
  bench: 'Go to the bench',
  deliver: 'Delivered',
  none: '',
};

/** Waiting for somebody to decide, and not for a machine. */
export const WAITS: JobSummary['next'][] = ['fix', 'decide', 'quote', 'order'];

/** What somebody does next on it, by the schedule: the block that runs, or the first one to come. */
export function nextSaid(job: JobSummary, board: Board | null): string | null {
  if (!board) return null;
  const mine = board.board.blocks.filter((one) => board.ids[one.key] === job.id);
  const [block] = inTurn(mine, board.done, board.now_min);
  if (!block) return null;
  const what = block.face ? `${block.label}, ${block.face}` : block.label;
  return block.from_min <= board.now_min
    ? `${block.person}: ${what}, until ${clockAt(block.to_min, board.board.begins)}`
    : `At ${timeAt(block.from_min, board.board.begins, board.day)}: ${what}`;
}
