/** Runs as this browser saw them last, with what comes next: the bench opens with them while the program does not answer. */
import type { Run } from './client';
import { HERE } from './here';

export interface Remembered {
  run: Run;
  /** The run after each of the next steps, if each goes as planned. */
  ahead: Run[];
  /** When the program told it, by this machine's clock. */
  at: number;
}

const PREFIX = `${HERE}.run.`;

export function remember(known: Remembered) {
  if (known.run.status !== 'open') return forget(known.run.id);
  try {
    localStorage.setItem(PREFIX + known.run.id, JSON.stringify(known));
  } catch {
    // The browser's store is full: it works while the program answers.
  }
}

export function remembered(id: number): Remembered | null {
  try {
    return JSON.parse(localStorage.getItem(PREFIX + id) ?? 'null') as Remembered | null;
  } catch {
    return null;
  }
}

export function allRemembered(): Remembered[] {
  return Object.keys(localStorage)
    .filter((key) => key.startsWith(PREFIX))
    .map((key) => remembered(Number(key.slice(PREFIX.length))))
    .filter((one) => one !== null);
}

export function forget(id: number) {
  localStorage.removeItem(PREFIX + id);
}

/** Only those that are still at the bench. */
export function forgetOthers(open: number[]) {
  for (const one of allRemembered()) if (!open.includes(one.run.id)) forget(one.run.id);
}

/** A device that is not let in any more shows nothing of the shop. What was tapped and not yet kept stays until it is. */
export function forgetAll() {
  forgetOthers([]);
}
