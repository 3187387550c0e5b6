/** What the person is reminded of while the clock runs. Pure: the numbers come from the server, the seconds from the clock. */

import { clock } from '../../units/units';

export interface Clocked {
  running: boolean;
  planned_s: number;
  more_s: number;
  on_tool_s: number;
  change_after_s: number | null;
  charged_s: number;
  recharge_after_s: number | null;
  rest_after_s: number | null;
  running_s: number;
  seconds: number;
}

export type ReminderKind = 'time' | 'change' | 'charge' | 'rest';

export interface Reminder {
  kind: ReminderKind;
  text: string;
}

/** Seconds of the step in hand, so many seconds after the server's answer. */
export function secondsNow(hand: Clocked, since: number): number {
  return hand.seconds + (hand.running ? since : 0);
}

/** Reminders that are due so many seconds after the server's answer; `unit`: disc, belt, wheel. */
export function reminders(hand: Clocked, since: number, unit: string): Reminder[] {
  const ran = hand.running ? since : 0;
  const due: Reminder[] = [];
  if (hand.rest_after_s !== null && hand.running && hand.running_s + ran >= hand.rest_after_s)
    due.push({ kind: 'rest', text: 'Put it down to cool: pause' });
  if (hand.change_after_s !== null && hand.on_tool_s + ran >= hand.change_after_s)
    due.push({ kind: 'change', text: `Change the ${unit}: it has worked ${clock(hand.on_tool_s + ran)}` });
  if (hand.recharge_after_s !== null && hand.charged_s + ran >= hand.recharge_after_s)
    due.push({ kind: 'charge', text: 'Touch the compound to the wheel' });
  if (hand.seconds + ran >= hand.planned_s + hand.more_s && hand.planned_s > 0)
    due.push({ kind: 'time', text: 'Planned time is up: wipe it, look under the low lamp' });
  return due;
}

/** Share of the longest stay on one spot that is over, 0 to 1, counted anew each time; null where heat sets no limit. */
export function stayShare(seconds: number, longest: number | null): number | null {
  if (longest === null || longest <= 0 || longest > 120) return null;
  return (seconds % longest) / longest;
}

/** What is said while nobody answers, or while a tap is on its way. */
export function keptHere(bench: { waiting: readonly unknown[]; why: string; lost: boolean }): string {
  const { waiting, why, lost } = bench;
  const first = why || 'The program does not answer.';
  if (!waiting.length) return `${first} The clock here goes on; what you tap is saved in this browser.`;
  const kept =
    waiting.length === 1
      ? 'Your last tap is saved in this browser and is sent'
      : `Your last ${waiting.length} taps are saved in this browser and are sent`;
  const next = lost ? ' What comes next is not known here until then.' : '';
  return `${first} ${kept} as soon as ${why ? 'it can be saved' : 'it does'}.${next}`;
}
