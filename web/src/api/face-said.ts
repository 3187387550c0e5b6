import { choices } from './catalogue.svelte';
import type { Edge, Face } from './client';
import { shown } from '../units/shown.svelte';

/** How a face came, in the units shown: "pits 22–35 µm". */
export function foundSaid(face: Face): string {
  const called = choices.all?.damages.find((one) => one.id === face.found.called)?.label;
  if (face.found.after) return `${called ? `${called.toLowerCase()}, ` : ''}as left by ${face.found.after}`;
  const kind =
    called ?? choices.all?.found.find((one) => one.id === face.found.kind)?.label.split(':')[0] ?? face.found.kind;
  const depth = face.found.depth_um;
  if (typeof depth === 'number') return `${kind.toLowerCase()} ${shown.say(depth, 'depth')}`;
  return depth ? `${kind.toLowerCase()} ${shown.bare(depth.likely, 'depth')}–${shown.say(depth.worst, 'depth')}` : kind;
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
