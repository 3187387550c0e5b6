import { HERE } from '../../api/here';
import type { Tap } from '../../api/client';

/** A tap that the server has not confirmed. It lives in this browser, also through a reload. */
export interface WaitingTap {
  tap: Tap;
  name: string;
  after: number;
  /** When it was tapped, by this machine's clock: only its age is sent. */
  tapped: number;
}

const key = (run: number) => `${HERE}.tap.${run}`;

export function waiting(run: number): WaitingTap | null {
  try {
    return JSON.parse(localStorage.getItem(key(run)) ?? 'null') as WaitingTap | null;
  } catch {
    return null;
  }
}

export function keepWaiting(run: number, tap: WaitingTap) {
  localStorage.setItem(key(run), JSON.stringify(tap));
}

export function dropWaiting(run: number) {
  localStorage.removeItem(key(run));
}
