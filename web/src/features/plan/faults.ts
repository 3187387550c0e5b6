/** Which fault is said where: beside its field, and with its place in words before the start. */
import type { Fault } from '../../api/client';

const FACE = /^faces\[(\d+)\]/;

/** Faults that speak of this key, or of something in it. */
export function faultsAt(faults: Fault[], field: string): Fault[] {
  const within = (one: string) => one === field || one.startsWith(`${field}.`) || one.startsWith(`${field}[`);
  return faults.filter((fault) => fault.about.some(within));
}

/** Where a fault is, in words: the face by its name, and the field. */
export function placeOf(fault: Fault, faces: { name: string }[]): string {
  const face = faceOf(fault.field);
  return [face === undefined ? '' : faces[face]?.name, fault.where].filter(Boolean).join(', ');
}

function faceOf(field: string): number | undefined {
  const found = FACE.exec(field);
  return found ? Number(found[1]) : undefined;
}
