/** A wheel or disc as it turns: where the worker stands and where the work may touch. Pure geometry. */

export interface Turning {
  /** Centre and radius of the wheel. */
  x: number;
  y: number;
  r: number;
  /** The arc where the work may touch, on the rim. */
  touch: string;
  /** The turning arrow inside the wheel, and its head. */
  arrow: string;
  head: string;
  /** Where the worker stands. */
  worker: { x: number; y: number };
}

/** Angles in degrees anticlockwise from three o'clock, as in the reference data; the screen's y runs down. */
export function layOutTurning(
  drawing: { turns: string; worker_deg: number; touch_deg: [number, number] },
  size: number,
): Turning {
  const x = size / 2;
  const y = size / 2;
  const r = size * 0.33;
  const at = (deg: number, radius: number) => {
    const angle = (deg * Math.PI) / 180;
    return { x: x + radius * Math.cos(angle), y: y - radius * Math.sin(angle) };
  };
  const [from, to] = drawing.touch_deg;
  const anticlockwise = drawing.turns === 'anticlockwise';
  const [begin, end] = anticlockwise ? [60, 140] : [120, 40];
  return {
    x,
    y,
    r,
    touch: arc(at(from, r), at(to - (to - from >= 360 ? 0.01 : 0), r), r, to - from > 180, true),
    arrow: arc(at(begin, r * 0.6), at(end, r * 0.6), r * 0.6, false, anticlockwise),
    head: arrowHead(at(end, r * 0.6), end + (anticlockwise ? 90 : -90), size * 0.06),
    worker: at(drawing.worker_deg, size * 0.44),
  };
}

interface Point {
  x: number;
  y: number;
}

/** `anticlockwise` as seen: the sweep flag of SVG counts the other way round. */
function arc(from: Point, to: Point, r: number, large: boolean, anticlockwise: boolean): string {
  return `M${from.x.toFixed(2)},${from.y.toFixed(2)}A${r.toFixed(2)},${r.toFixed(2)} 0 ${large ? 1 : 0} ${anticlockwise ? 0 : 1} ${to.x.toFixed(2)},${to.y.toFixed(2)}`;
}

/** A triangle at a point, looking along a direction in degrees. */
function arrowHead(tip: Point, direction: number, length: number): string {
  const corner = (turn: number) => {
    const angle = ((direction + turn) * Math.PI) / 180;
    return `${(tip.x + length * Math.cos(angle)).toFixed(2)},${(tip.y - length * Math.sin(angle)).toFixed(2)}`;
  };
  return `M${corner(0)}L${corner(130)}L${corner(-130)}Z`;
}
