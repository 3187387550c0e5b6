import { shown } from './shown.svelte';

/** How large each of some places is, to be read: its area, or length by width. */
export function sizeOfEach(spots: {
  area_cm2?: number | null;
  length_mm?: number | null;
  width_mm?: number | null;
}): string {
  return spots.area_cm2
    ? shown.say(spots.area_cm2, 'area')
    : `${shown.bare(spots.length_mm ?? 0, 'length')} × ${shown.say(spots.width_mm ?? 0, 'length')}`;
}
