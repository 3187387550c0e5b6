/** Routes as points: minutes across, metal or cost down the side; what each takes decides its place. Pure geometry. */
import { scaleLinear, scaleLog } from 'd3-scale';
import {
  symbol,
  symbolCircle,
  symbolDiamond,
  symbolSquare,
  symbolStar,
  symbolTriangle,
  type SymbolType,
} from 'd3-shape';

export interface RoutePoint {
  minutes: number;
  /** What is up the side. */
  value: number;
  changes: number;
  /** The schools and aims that would choose it. */
  names: string[];
}

export interface Mark {
  x: number;
  y: number;
  path: string;
  /** Names beside it, and on which side of it they are written; empty for a route that no school takes. */
  label: string;
  anchor: 'start' | 'end';
  labelX: number;
  labelY: number;
}

export interface RoutesPicture {
  marks: Mark[];
  left: number;
  right: number;
  top: number;
  bottom: number;
  xTicks: { x: number; value: number }[];
  yTicks: { y: number; value: number }[];
}

const MARGIN = { left: 46, right: 12, top: 16, bottom: 36 };
const SIZE = 74;
const LINE = 13;
const OFFSETS = [0, 1, -1, 2, -2, 3, -3, 4, -4, 5, -5, 6, -6];
const SHAPES: SymbolType[] = [symbolCircle, symbolSquare, symbolTriangle, symbolDiamond, symbolStar];

/** The shape for so many changes; from four on the same. */
export function shapeOf(changes: number, size = SIZE): string {
  return symbol(SHAPES[Math.min(changes, SHAPES.length - 1)], size)() ?? '';
}

/** A scale over these values with some room, logarithmic when they spread over more than five times. */
function scaleOf(values: number[], from: number, to: number) {
  const known = values.filter((value) => value > 0);
  const [low, high] = [Math.min(...known), Math.max(...known)];
  if (!known.length) return { scale: scaleLinear([0, 1], [from, to]), ticks: [0, 1] };
  if (high > 5 * low && known.length === values.length) {
    const scale = scaleLog([low / 1.15, high * 1.15], [from, to]);
    const round = scale.ticks().filter((tick) => ['1', '2', '5'].includes(tick.toExponential()[0] ?? ''));
    return { scale, ticks: round };
  }
  const room = Math.max(0.06 * (high - Math.min(...values)), 0.02 * high);
  const scale = scaleLinear([Math.max(0, Math.min(...values) - room), high + room], [from, to]);
  return { scale, ticks: scale.ticks(5) };
}

export function layOutRoutes(points: RoutePoint[], width: number, height: number): RoutesPicture {
  const { left, top } = MARGIN;
  const [right, bottom] = [Math.max(left + 40, width - MARGIN.right), Math.max(top + 40, height - MARGIN.bottom)];
  const x = scaleOf(
    points.map((point) => point.minutes),
    left,
    right,
  );
  const y = scaleOf(
    points.map((point) => point.value),
    bottom,
    top,
  );
  // Names keep clear of the points, too.
  const written = points.map((point) => ({
    x0: x.scale(point.minutes) - 7,
    x1: x.scale(point.minutes) + 7,
    y: y.scale(point.value) + 4,
  }));
  const marks = points.map((point) => {
    const [at, up] = [x.scale(point.minutes), y.scale(point.value)];
    const label = point.names.join(', ');
    const long = 6.4 * label.length;
    const anchor = at + 9 + long > right ? ('end' as const) : ('start' as const);
    const labelX = anchor === 'start' ? at + 9 : at - 9;
    const [x0, x1] = anchor === 'start' ? [labelX, labelX + long] : [labelX - long, labelX];
    const free = (labelY: number) =>
      labelY > top + 8 &&
      labelY < bottom - 2 &&
      !written.some((one) => Math.abs(one.y - labelY) < LINE - 1 && one.x0 < x1 && x0 < one.x1);
    // The nearest line that is free, below before above.
    const labelY = OFFSETS.map((lines) => up + 4 + lines * LINE).find(free) ?? up + 4;
    if (label) written.push({ x0, x1, y: labelY });
    return { x: at, y: up, path: shapeOf(point.changes), label, anchor, labelX, labelY };
  });
  return {
    marks,
    left,
    right,
    top,
    bottom,
    xTicks: x.ticks.map((value) => ({ x: x.scale(value), value })),
    yTicks: y.ticks.map((value) => ({ y: y.scale(value), value })),
  };
}

/** The route to the left or right of one in the picture, by minutes. */
export function nextAcross(points: RoutePoint[], at: number, by: 1 | -1): number {
  const order = points.map((_, index) => index).sort((a, b) => (points[a]?.minutes ?? 0) - (points[b]?.minutes ?? 0));
  const place = order.indexOf(at) + by;
  return order[Math.min(Math.max(place, 0), order.length - 1)] ?? at;
}
