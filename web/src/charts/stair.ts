/** The descent stair: minutes across, deepest marks left (log µm) down. Pure geometry from the plan's own numbers. `umPerTick`: ticks are round in units of so many µm. */
import { scaleLinear, scaleLog } from 'd3-scale';
import { line } from 'd3-shape';

export interface StairStep {
  label: string;
  grainUm: number;
  minutes: number;
  fromUm: number;
  likelyUm: number;
  leavesUm: number;
  /** Depth of old marks that the step does not reach; 0 for none. */
  staysUm: number;
  /** (minutes since the step began, deepest marks left in µm) */
  curve: [number, number][];
}

export interface Tread {
  step: StairStep;
  x0: number;
  x1: number;
  path: string;
  area: string;
  /** Where the light check stands. */
  checkX: number;
  checkY: number;
  labelX: number;
  labelY: number;
  /** The label, shortened to fit, or the number of the step. */
  label: string;
}

export interface Stair {
  treads: Tread[];
  left: number;
  right: number;
  top: number;
  bottom: number;
  depthTicks: { y: number; value: number }[];
  minuteTicks: { x: number; value: number }[];
  /** Top of the wanted band, or null when nothing ends the band within the picture. */
  wantedY: number | null;
  /** Its lower end: a face can be too fine. The foot of the picture when the band has none. */
  wantedBottom: number;
  /** The likely depth at the start, where it is less than the worst one that the plan is made for. */
  likely: { x: number; y0: number; y1: number; labelY: number | null } | null;
}

const MARGIN = { left: 54, right: 14, top: 34, bottom: 34 };
const CHARACTER = 7.4;
const LINE = 14;

export function layOutStair(
  steps: StairStep[],
  wantedUm: number | null,
  wantedLowUm: number | null,
  width: number,
  height: number,
  umPerTick = 1,
): Stair {
  const left = MARGIN.left;
  const right = Math.max(left + 40, width - MARGIN.right);
  const top = MARGIN.top;
  const bottom = Math.max(top + 40, height - MARGIN.bottom);
  const total = steps.reduce((sum, step) => sum + step.minutes, 0) || 1;
  const depths = steps.flatMap((step) => [step.fromUm, step.leavesUm, ...step.curve.map(([, depth]) => depth)]);
  const highest = Math.max(...depths, wantedUm ?? 0, 1e-3) * 1.25;
  const lowest = Math.min(...depths, wantedUm ?? Infinity, highest / 10) / 2;
  const x = scaleLinear([0, total], [left, right]);
  const y = scaleLog([highest, lowest], [top, bottom]);
  const draw = line<[number, number]>();

  let begun = 0;
  const treads = steps.map((step, at): Tread => {
    const points = step.curve.map(([minutes, depth]): [number, number] => [x(begun + minutes), y(depth)]);
    const x0 = x(begun);
    const x1 = x(begun + step.minutes);
    begun += step.minutes;
    const path = draw(points) ?? '';
    return {
      step,
      x0,
      x1,
      path,
      area: `${path}L${x1},${bottom}L${x0},${bottom}Z`,
      checkX: x1,
      checkY: y(Math.max(step.leavesUm, step.staysUm)),
      labelX: x0 + 7,
      labelY: (points[0]?.[1] ?? top) - 9,
      label: fitted(step.label, x1 - x0 - 10) || String(at + 1),
    };
  });
  const first = steps[0];
  return {
    treads,
    left,
    right,
    top,
    bottom,
    depthTicks: niceDepths(lowest / umPerTick, highest / umPerTick, bottom - top).map((tick) => ({
      value: tick * umPerTick,
      y: y(tick * umPerTick),
    })),
    minuteTicks: x
      .ticks(Math.min(8, Math.max(2, Math.floor((right - left) / 70))))
      .map((value) => ({ value, x: x(value) })),
    wantedY: wantedUm !== null && wantedUm < highest ? y(Math.max(wantedUm, lowest)) : null,
    wantedBottom: wantedLowUm !== null && wantedLowUm > lowest ? Math.min(y(wantedLowUm), bottom) : bottom,
    likely:
      first && first.fromUm > first.likelyUm * 1.001
        ? whisker(left, y(first.fromUm), y(first.likelyUm), (x(first.minutes) - left) / 2)
        : null,
  };
}

/** The span from the worst to the likely depth; its label stands under the first step's line, or is left out. */
function whisker(x: number, y0: number, y1: number, room: number) {
  return { x, y0, y1, labelY: y1 - y0 >= LINE && room >= 5 * CHARACTER ? y1 + 4 : null };
}

/** 1, 2 and 5 of every decade between the ends, or fewer where their letters would touch on so many pixels. */
export function niceDepths(lowest: number, highest: number, height: number): number[] {
  const decade = height / Math.log10(highest / lowest);
  const leads = [
    [1, 2, 5],
    [1, 3],
  ].find((some) => decade * Math.log10(some[1] ?? 1) >= LINE) ?? [1];
  const found: number[] = [];
  for (let power = Math.floor(Math.log10(lowest)); power <= Math.ceil(Math.log10(highest)); power++)
    for (const lead of leads) {
      const value = Number((lead * 10 ** power).toPrecision(1));
      if (value >= lowest && value <= highest) found.push(value);
    }
  return found;
}

/** The label if it fits; else what stands before its first comma; else nothing. */
export function fitted(label: string, width: number): string {
  const short = label.split(',')[0] ?? label;
  return [label, short].find((text) => text.length * CHARACTER <= width) ?? '';
}

/** The step at a place across, for pointing. */
export function stepAt(stair: Stair, px: number): number | null {
  const at = stair.treads.findIndex((tread) => px >= tread.x0 && px < tread.x1);
  return at === -1 ? null : at;
}
