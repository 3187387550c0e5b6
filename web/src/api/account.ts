/** The account of time: every minute of a job belongs to one line. The program works it out; here is how it is called. */
import type { components } from './schema';

export type Account = components['schemas']['AccountFile'];
export type AccountLine = keyof Account;

/** The lines in the order in which they are shown; all but waiting are a person's hands-on time. */
export const LINES: Record<AccountLine, string> = {
  cutting: 'Cutting',
  handling: 'Handling',
  set_up: 'Set-up',
  before_after: 'Before and after',
  waiting: 'Waiting',
};

/** The lines that have any time, in order. */
export const linesOf = (account: Account): { line: AccountLine; label: string; minutes: number }[] =>
  (Object.keys(LINES) as AccountLine[])
    .map((line) => ({ line, label: LINES[line], minutes: account[line] }))
    .filter((one) => one.minutes > 0);
