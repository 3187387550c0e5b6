/** What can happen in a day, as a person says it. The program works out what it does. */
import type { DayEvent } from '../../api/client';

export type EventKind = DayEvent['kind'];

/** What a kind of event is called, and what must be chosen for it. */
export const KINDS: { kind: EventKind; label: string; needs: 'person' | 'machine' | 'job' | 'block' | 'operation' }[] =
  [
    { kind: 'away', label: 'Somebody is away', needs: 'person' },
    { kind: 'stays', label: 'Somebody stays longer', needs: 'person' },
    { kind: 'urgent', label: 'A job is urgent', needs: 'job' },
    { kind: 'broken', label: 'A machine is out of order', needs: 'machine' },
    { kind: 'longer', label: 'Something takes twice as long', needs: 'block' },
    { kind: 'out', label: 'Something has run out', needs: 'operation' },
  ];

/** A clock of today as minutes since the board begins; null for none. */
export function untilOf(clock: string, begins: string): number | null {
  const [hours, minutes] = clock.split(':').map(Number);
  const [h, m] = begins.split(':').map(Number);
  if (!clock || hours === undefined || minutes === undefined) return null;
  return Math.max(0, hours * 60 + minutes - (h ?? 0) * 60 - (m ?? 0));
}

/** The event as it is sent; null while something that it needs is not chosen yet. */
export function eventOf(kind: EventKind, chosen: string, until: number | null): DayEvent | null {
  const needs = KINDS.find((one) => one.kind === kind)?.needs;
  if (!needs || !chosen || (kind === 'stays' && until === null)) return null;
  const what = needs === 'job' ? { job: Number(chosen) } : { [needs]: chosen };
  return { kind, ...what, until_min: until, times: 2 } as DayEvent;
}
