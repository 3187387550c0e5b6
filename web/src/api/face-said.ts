import { choices } from './catalogue.svelte';
import type { Edge, Face, FacePlan, Shape } from './client';
import { rangeOf } from './depth';
import { shown } from '../units/shown.svelte';

/** How a face came, in the units shown: "pits, 22 to 35 µm". */
export function foundSaid(face: Face): string {
  const called = choices.all?.damages.find((one) => one.id === face.found.called)?.label;
  if (face.found.after) return `${called ? `${called.toLowerCase()}, ` : ''}as left by ${face.found.after}`;
  const kind =
    called ?? choices.all?.found.find((one) => one.id === face.found.kind)?.label.split(/[:,]/)[0] ?? face.found.kind;
  const depth = face.found.depth_um;
  if (typeof depth === 'number') return `${kind.toLowerCase()}, ${shown.say(depth, 'depth')}`;
  return depth
    ? `${kind.toLowerCase()}, ${shown.bare(depth.likely, 'depth')} to ${shown.say(depth.worst, 'depth')}`
    : kind;
}

/** What a face shall become: a finish by its label, or a band of Ra. */
export function wantedSaid(face: Face): string {
  if (face.want.finish) return choices.finish(face.want.finish)?.label ?? face.want.finish;
  const ends = face.want.ra_um?.map((end) => (end === null ? '–' : shown.bare(end, 'roughness')));
  return `Ra ${ends?.join(' to ')} ${shown.unit('roughness')}`;
}

/** What becomes of an edge: "edge of 400 mm, broken at 45° 0.3 mm". */
export function edgeSaid(edge: Edge): string {
  const wanted = choices.all?.edges.find((one) => one.id === edge.wanted)?.label ?? edge.wanted;
  const size = edge.size_mm ? ` ${shown.say(edge.size_mm, 'length')}` : '';
  return `edge of ${shown.say(edge.length_mm, 'length')}, ${wanted.toLowerCase()}${size}`;
}

/** How large a face is: its shape with its measures, or its area. */
export function sizeSaid(face: Face, areaCm2?: number): string {
  const shape = choices.all?.shapes.find((one) => one.id === face.shape?.kind);
  if (!shape || !face.shape) return areaCm2 === undefined ? 'by its area' : shown.say(areaCm2, 'area', 3);
  const measures = shape.needs.map((need) =>
    shown.bare(face.shape?.[need as Exclude<keyof Shape, 'kind'>] ?? 0, 'length'),
  );
  return `${shape.label} ${measures.join(' × ')} ${shown.unit('length')}`;
}

/** What is deeper than the rest: "3 gouges 60 µm". */
export function spotsSaid(face: Face): string {
  const all = (face.spots ?? []).map((spots) => {
    const depth = rangeOf(spots.depth_um);
    const count = (spots.count ?? 1) > 1 ? `${spots.count} × ` : '';
    return `${count}${spots.name.toLowerCase()} ${depth ? shown.say(depth.likely, 'depth') : `left by ${spots.after}`}`;
  });
  return all.join(', ') || 'No';
}

/** How much may come off, and how it is reached where that is not from outside. */
export function limitSaid(face: Face, plan: FacePlan | undefined): string {
  const reach = choices.all?.reaches.find((one) => one.id === face.reach);
  const off = plan ? Math.max(0, plan.metal_um - plan.above_um) : 0;
  const limit =
    plan?.limit_um === null || plan?.limit_um === undefined
      ? 'No limit'
      : `Takes ${shown.bare(off, 'depth')} of ${shown.say(plan.limit_um, 'depth')} allowed`;
  return face.reach && face.reach !== 'open' && reach ? `${limit}, ${reach.label.toLowerCase()}` : limit;
}
