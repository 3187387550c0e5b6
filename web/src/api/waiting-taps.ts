/**
 * The taps of this browser that the program has not confirmed: a record for each, so that two tabs never write over each other's.
 * What the browser's store does not take is held by this page alone, and sent all the same.
 */
import { HERE } from './here';
import type { Tap } from './types';

export interface WaitingTap {
  run: number;
  tap: Tap;
  /** Names this very tap, so that sending it twice keeps it once. */
  name: string;
  /** Its place among the taps of its run. */
  place: number;
  /** The newest event that the screen had seen; or, kept while nobody answered, the tap of its own before it. */
  after: number;
  afterTap?: string;
  /** When it was tapped, by this machine's clock: only its age is sent. */
  tapped: number;
  /** It was sent once, so that it may be kept although no answer came. */
  tried?: boolean;
}

/** Taps that were refused, kept until somebody has read it: of which run, what they were, and why. */
export interface RefusedTaps {
  id: string;
  run: number;
  kinds: Tap['kind'][];
  words: string;
  why: string;
}

const TAP = `${HERE}.tap.`;
const REFUSED = `${HERE}.refused.`;
/** What older versions kept: a list for each run. */
const LISTS = `${HERE}.taps.`;
/** Records that the store did not take. */
const unsaved = new Map<string, unknown>();

/** Whether something is held by this page alone, because the browser's store is full. */
export function storeIsFull(): boolean {
  return unsaved.size > 0;
}

/** The taps of a run, in order; without a run those of all. */
export function waitingTaps(run?: number): WaitingTap[] {
  takeOldLists();
  return all<WaitingTap>(TAP)
    .filter((one) => run === undefined || one.run === run)
    .sort((a, b) => a.place - b.place || a.tapped - b.tapped || (a.name < b.name ? -1 : 1));
}

export function keepTap(tap: WaitingTap) {
  keep(TAP + tap.name, tap);
}

export function dropTap(name: string) {
  drop(TAP + name);
}

export const refusedTaps = () => all<RefusedTaps>(REFUSED);

export function keepRefused(refused: RefusedTaps) {
  keep(REFUSED + refused.id, refused);
}

export function dropRefused(id: string) {
  drop(REFUSED + id);
}

export function newName(): string {
  return `tap-${Date.now().toString(36)}-${Math.random().toString(36).slice(2, 10)}`;
}

function keep(key: string, record: unknown) {
  try {
    localStorage.setItem(key, JSON.stringify(record));
    unsaved.delete(key);
  } catch {
    unsaved.set(key, record);
  }
}

function drop(key: string) {
  unsaved.delete(key);
  localStorage.removeItem(key);
  for (const [waiting, record] of unsaved) keep(waiting, record); // there may be room now
}

function all<Record>(prefix: string): Record[] {
  const keys = new Set([...Object.keys(localStorage), ...unsaved.keys()]);
  return [...keys]
    .filter((key) => key.startsWith(prefix))
    .flatMap((key) => {
      const record = unsaved.get(key) ?? parsed(localStorage.getItem(key));
      return record === null || record === undefined ? [] : [record as Record];
    });
}

function parsed(text: string | null): unknown {
  try {
    return JSON.parse(text ?? 'null');
  } catch {
    return null;
  }
}

function takeOldLists() {
  for (const key of Object.keys(localStorage).filter((one) => one.startsWith(LISTS))) {
    const list = parsed(localStorage.getItem(key));
    const run = Number(key.slice(LISTS.length));
    if (Array.isArray(list))
      (list as WaitingTap[]).forEach((one, place) => keep(TAP + one.name, { ...one, run, place }));
    localStorage.removeItem(key);
  }
}
