import type { SizeAnswer } from '../../api/client';
import { toShown, type System } from '../../units/units';

/** What a move is called at the bench; `tool` says what is in hand. */
export const MOVES: Record<SizeAnswer['next']['move'], (tool: string) => string> = {
  measure: () => 'Measure',
  lap: (tool) => (tool === 'lap' ? 'Lap' : tool === 'file' ? 'File' : 'Cloth'),
  'short-strokes': () => 'Short strokes',
  expand: () => 'Set out, lap',
  finer: (tool) => (tool === 'lap' ? 'Finishing lap' : 'Cloth now'),
  cool: () => 'Let it cool',
  stop: () => 'Stop',
  'cut-again': () => 'Cut it first',
  'not-possible': () => 'Past the limit',
};

/** A size to as many places as gauges have: a tenth of a micrometre, or a hundred-thousandth of an inch. */
export function sizeText(mm: number, system: System): string {
  return toShown(mm, 'length', system).toFixed(system === 'inch' ? 5 : 4);
}

/** Minutes and seconds. */
export function clock(seconds: number): string {
  const whole = Math.max(0, Math.floor(seconds + 1e-6));
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
}

/** Where along the length a place is, in words. */
export function placeWords(z: number, length: number): string {
  if (Math.abs(z) < length * 0.1) return 'in the middle';
  return z < 0 ? 'near the left end' : 'near the right end';
}
