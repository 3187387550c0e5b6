/** The descent stair: minutes across, deepest marks left (log µm) down. Pure geometry from the plan's own numbers. */
import { scaleLinear, scaleLog } from 'd3-scale';
import { line } from 'd3-shape';
import { shortLabel } from './labels';

export interface StairStep {
  label: string;
  grainUm: number;
  minutes: number;
  fromUm: number;
  likelyUm: number;
  leavesUm: number;
  /** Depth of old marks that the step does not reach; 0 for none. */
  staysUm: number;
  /** The spots that it works, where it does not work all of the face. */
  zone?: string | null;
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
  /** The disc with the step's number; its label begins beside it. */
  discX: number;
  discY: number;
  /** As much of the label as there is room for; empty where there is none. */
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
  /** Where spots are worked first: the rest of the face, which waits, and where the spots join it. */
  rest: { x: number; y: number; um: number } | null;
  /** How deep the marks were found, where there are no steps yet. */
  foundY: number | null;
  /** From there on minutes are drawn so many times narrower; 1 for as wide as before. */
  narrower: number;
}

const MARGIN = { left: 54, right: 14, top: 48, bottom: 34 };
const CHARACTER = 7.4;
const LINE = 14;
const DISC = 22;

/** What the stair of a face shows besides its steps. */
export interface Around {
  /** Depths of the wanted band; null where it has no such end. */
  wantedUm: number | null;
  wantedLowUm?: number | null;
  /** Depth of the rest of the face, where spots are worked first. */
  restUm?: number | null;
  /** How deep the marks were found, where there are no steps yet. */
  foundUm?: number | null;
  /** Ticks are round in units of so many µm. */
  umPerTick?: number;
  /** The depths from top to foot, where several stairs share one scale. */
  span?: Span;
}

/** The depths (µm) at the top and at the foot of a stair. */
export interface Span {
  highest: number;
  lowest: number;
}

/** The depths that a stair needs to show everything. */
export function spanOf(steps: StairStep[], { wantedUm, restUm }: Pick<Around, 'wantedUm' | 'restUm'>): Span {
  const depths = steps.flatMap((step) => [step.fromUm, step.leavesUm, ...step.curve.map(([, depth]) => depth)]);
  if (restUm !== null && restUm !== undefined) depths.push(restUm);
  const highest = Math.max(...depths, wantedUm ?? 0, 1e-3) * 1.25;
  return { highest, lowest: Math.min(...depths, wantedUm ?? Infinity, highest / 10) / 2 };
}

export function layOutStair(steps: StairStep[], width: number, height: number, around: Around): Stair {
  const { wantedUm, wantedLowUm = null, umPerTick = 1 } = around;
  const left = MARGIN.left;
  const right = Math.max(left + 40, width - MARGIN.right);
  const top = MARGIN.top;
  const bottom = Math.max(top + 40, height - MARGIN.bottom);
  const total = steps.reduce((sum, step) => sum + step.minutes, 0) || 1;
  const joins = steps.findIndex((step) => !step.zone);
  const before = steps.slice(0, Math.max(joins, 0)).reduce((sum, step) => sum + step.minutes, 0);
  const rest = joins > 0 ? (around.restUm ?? null) : null;
  const { highest, lowest } = around.span ?? spanOf(steps, { wantedUm, restUm: rest });
  const narrower = joins > 0 ? narrowing(before, total - before) : 1;
  const drawn = before + (total - before) / narrower;
  const middle = left + ((right - left) * before) / drawn;
  const x =
    narrower === 1 ? scaleLinear([0, total], [left, right]) : scaleLinear([0, before, total], [left, middle, right]);
  const y = scaleLog([highest, lowest], [top, bottom]);
  const draw = line<[number, number]>();

  let begun = 0;
  const treads = steps.map((step): Tread => {
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
      discX: x0 + DISC / 2 + 2,
      discY: Math.max((points[0]?.[1] ?? top) - DISC / 2 - 4, DISC / 2 + 8),
      label: '',
    };
  });
  name(treads, right, joins > 0);
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
    minuteTicks:
      narrower === 1
        ? ticksOf([0, total], left, right)
        : [...ticksOf([0, before], left, middle), ...ticksOf([before, total], middle, right)],
    wantedY: wantedUm !== null && wantedUm < highest ? y(Math.max(wantedUm, lowest)) : null,
    wantedBottom: wantedLowUm !== null && wantedLowUm > lowest ? Math.min(y(wantedLowUm), bottom) : bottom,
    likely:
      first && first.fromUm > first.likelyUm * 1.001
        ? whisker(left, y(first.fromUm), y(first.likelyUm), (x(first.minutes) - left) / 2)
        : null,
    rest: rest === null ? null : { x: x(before), y: y(rest), um: rest },
    foundY: around.foundUm ? y(around.foundUm) : null,
    narrower,
  };
}

/** What a long pass over everything is drawn narrower by, so that the work in places can still be seen: 1, 2, 4, 8 … */
function narrowing(before: number, after: number): number {
  let times = 1;
  while (after / times > 1.5 * before && times < 64) times *= 2;
  return times;
}

/** Discs of short steps move aside; a label runs on over the next step until something stands at the same height. */
function name(treads: Tread[], right: number, zoned: boolean) {
  const level = (one: Tread, other: Tread) => Math.abs(one.discY - other.discY) < DISC;
  treads.forEach((tread, at) => {
    const before = treads[at - 1];
    if (before && level(before, tread)) tread.discX = Math.max(tread.discX, before.discX + DISC + 2);
  });
  treads.forEach((tread, at) => {
    const next = treads.slice(at + 1).find((other) => level(tread, other));
    const room = (next ? next.discX - DISC / 2 : right) - tread.discX - DISC / 2 - 8;
    tread.label = fitted(named(tread.step, zoned), room) || fitted(shortLabel(tread.step.label), room);
  });
}

function named(step: StairStep, zoned: boolean): string {
  const label = shortLabel(step.label);
  return zoned ? `${label}, ${step.zone ? `${step.zone} only` : 'over everything'}` : label;
}

function ticksOf(minutes: [number, number], left: number, right: number): { x: number; value: number }[] {
  const x = scaleLinear(minutes, [left, right]);
  const most = Math.min(8, Math.max(2, Math.floor((right - left) / 70)));
  return x.ticks(most).map((value) => ({ value, x: x(value) }));
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

/** The label if it fits; else without what stands after a comma, then its grit alone; else nothing. Never cut within the grit. */
export function fitted(label: string, width: number): string {
  const short = label.split(',')[0] ?? label;
  const grit = /^[PF]?\d+(?: µm)?/.exec(label)?.[0] ?? short;
  return [label, short, grit].find((text) => text.length * CHARACTER <= width) ?? '';
}

/** The step at a place across, for pointing. */
export function stepAt(stair: Stair, px: number): number | null {
  const at = stair.treads.findIndex((tread) => px >= tread.x0 && px < tread.x1);
  return at === -1 ? null : at;
}
