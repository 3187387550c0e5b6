/** When something is promised, as people say it: "today 15:30", "Wed 2 Dec 16:00". */
import { duration } from './units';

const DAY_MS = 86_400_000;

export function dueSaid(due: string | Date, now = new Date()): string {
  const at = new Date(due);
  const time = at.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
  const days = daysTo(at, now);
  if (days === 0) return `today ${time}`;
  if (days === 1) return `tomorrow ${time}`;
  const weekday = at.toLocaleDateString('en-GB', { weekday: 'short' });
  return `${weekday} ${at.getDate()} ${at.toLocaleDateString('en-GB', { month: 'short' })} ${time}`;
}

export type DueGroup = 'overdue' | 'today' | 'week' | 'later' | 'none';

/** Where a job stands in a list that is read from what is due first: within seven days is this week. */
export function dueGroup(due: string | null, now = new Date()): DueGroup {
  if (due === null) return 'none';
  const at = new Date(due);
  if (at < now) return 'overdue';
  const days = daysTo(at, now);
  return days === 0 ? 'today' : days < 7 ? 'week' : 'later';
}

const daysTo = (at: Date, now: Date) => Math.round((midnight(at) - midnight(now)) / DAY_MS);
const midnight = (day: Date) => new Date(day.getFullYear(), day.getMonth(), day.getDate()).getTime();

/** What is left of a promise: "50 min to spare", "20 min late". */
export function promiseSaid({ kind, minutes }: { kind: 'late' | 'good'; minutes: number }): string {
  return `${duration(minutes)} ${kind === 'late' ? 'late' : 'to spare'}`;
}
