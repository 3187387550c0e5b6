/** Which fault is said where: beside its field when that is on the page, in the notes otherwise, and never in both. */
import type { Fault } from '../../api/client';

/** Keys whose fields stand on the page of a face and show what is wrong with them: every figure of it has one. */
const SHOWN =
  /^(pieces|diameters_mm\.|faces\[\d+\]\.(\w+_(um|mm|cm2)|shape\.|found\.(depth_um|share|count)|want|layer|fit))/;
const FACE = /^faces\[(\d+)\]/;

/** Faults that speak of this key, or of something in it. */
export function faultsAt(faults: Fault[], field: string): Fault[] {
  const within = (one: string) => one === field || one.startsWith(`${field}.`) || one.startsWith(`${field}[`);
  return faults.filter((fault) => fault.about.some(within));
}

/** Faults that no field of the page shows while this face is in hand. */
export function faultsElsewhere(faults: Fault[], faceAt: number): Fault[] {
  const here = (field: string) => SHOWN.test(field) && (faceOf(field) ?? faceAt) === faceAt;
  return faults.filter((fault) => !fault.about.some(here));
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
