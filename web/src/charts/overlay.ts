/** Two photos over each other: what moves, turns and sizes one so that its two points lie on those of the other. */

export type Point = [number, number];

/** The six numbers of an SVG matrix (a b c d e f) that takes `from` to `to`; null where the two points of `from` are one. */
export function similarity(from: [Point, Point], to: [Point, Point]): number[] | null {
  const [ux, uy] = [from[1][0] - from[0][0], from[1][1] - from[0][1]];
  const [vx, vy] = [to[1][0] - to[0][0], to[1][1] - to[0][1]];
  const size = ux * ux + uy * uy;
  if (size < 1) return null;
  const a = (ux * vx + uy * vy) / size;
  const b = (ux * vy - uy * vx) / size;
  return [a, b, -b, a, to[0][0] - a * from[0][0] + b * from[0][1], to[0][1] - b * from[0][0] - a * from[0][1]];
}

/** Points as the attribute of an SVG polygon. */
export const polygon = (points: readonly Point[]): string => points.map(([x, y]) => `${x},${y}`).join(' ');

/** The middle of an outline, to write its name at. */
export function middle(points: readonly Point[]): Point {
  const sum = points.reduce(([x, y], [px, py]) => [x + px, y + py], [0, 0]);
  return [sum[0] / points.length, sum[1] / points.length];
}
