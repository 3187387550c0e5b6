/** A face that is worked to a size: its readings as a table of heights and directions. */
import type { Catalogue, Face } from '../../api/client';

export type Fit = NonNullable<Face['fit']>;
const SAME = 1e-6;

/** A size to begin with, for a bore or cylinder whose measures are known; undefined for any other face. */
export function startFit(face: Face, shapes: Catalogue['shapes']): Fit | undefined {
  const { kind, diameter_mm, length_mm } = face.shape ?? {};
  const as = shapes.find((one) => one.id === kind)?.sized_as;
  if (!as || !diameter_mm || !length_mm) return undefined;
  return {
    want: { nominal_mm: diameter_mm, class: as === 'bore' ? 'H7' : 'g6' },
    gauge: { repeatability_um: 2 },
    readings: [],
  };
}

/** Where along the length it is read, from the middle: near the left end, in the middle, near the right end. */
export function heights(places: { z_mm: number }[]): number[] {
  return [...new Set(places.map((place) => place.z_mm))].sort((a, b) => a - b);
}

/** In which directions. */
export function directions(places: { phi_deg: number }[]): number[] {
  return [...new Set(places.map((place) => place.phi_deg))].sort((a, b) => a - b);
}

export function readingAt(fit: Fit, z: number, phi: number): number | undefined {
  return fit.readings?.find((one) => same(one, z, phi))?.mm;
}

/** The readings with one more, another instead, or one fewer (null). */
export function withReading(fit: Fit, z: number, phi: number, mm: number | null): Fit {
  const others = (fit.readings ?? []).filter((one) => !same(one, z, phi));
  return { ...fit, readings: mm === null ? others : [...others, { z_mm: z, phi_deg: phi, mm }] };
}

function same(one: { z_mm?: number; phi_deg?: number }, z: number, phi: number): boolean {
  return Math.abs((one.z_mm ?? 0) - z) < SAME && Math.abs((one.phi_deg ?? 0) - phi) < SAME;
}
