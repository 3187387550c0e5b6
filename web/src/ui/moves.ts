import { toShown, type System } from '../units/units';

/** What comes next at the gauge. */
export type SizeMove =
  'measure' | 'lap' | 'short-strokes' | 'expand' | 'finer' | 'cool' | 'stop' | 'cut-again' | 'not-possible';

/** What a move is called at the bench; `tool` says what is in hand. */
export const MOVES: Record<SizeMove, (tool: string) => string> = {
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

/** A size that was read: to the place that its gauge repeats within (µm), no finer. */
export function readText(mm: number, system: System, withinUm: number): string {
  const step = toShown(withinUm / 1000, 'length', system);
  const places = Math.min(system === 'inch' ? 5 : 4, Math.max(0, Math.ceil(-Math.log10(Math.max(step, 1e-6)))));
  return toShown(mm, 'length', system).toFixed(places);
}

/** Whether the tool works in this move. */
export function works(move: SizeMove): boolean {
  return move === 'lap' || move === 'short-strokes' || move === 'expand';
}

/** Where along the length a place is, in words. */
export function placeWords(z: number, length: number): string {
  if (Math.abs(z) < length * 0.1) return 'in the middle';
  return z < 0 ? 'near the left end' : 'near the right end';
}

/** A move as it is read aloud: what, how long, why. */
export function aloudOf(move: SizeMove, tool: string, seconds: number, why: string): string {
  const minutes = Math.floor(seconds / 60);
  const rest = Math.round(seconds % 60);
  const long = [minutes ? `${minutes} minute${minutes === 1 ? '' : 's'}` : '', rest ? `${rest} seconds` : '']
    .filter(Boolean)
    .join(' ');
  return [MOVES[move](tool), works(move) ? long : '', why].filter(Boolean).join('. ');
}
