/** A round section with its error magnified, and readings along the length: pure geometry. Lengths in um around a base. */
import { scaleLinear } from 'd3-scale';
import { arc, curveLinearClosed, lineRadial } from 'd3-shape';

export interface Section {
  /** The form as found: oval (largest less smallest), where it is widest (degrees), and its mean against the base, um. */
  mean: number;
  oval: number;
  widest: number;
  /** Where the tool has cut to, the limits, against the base, um. */
  now: number;
  low: number;
  high: number;
  kind: 'bore' | 'shaft';
}

export interface SectionPicture {
  /** How many times larger the error is drawn than the part. */
  times: number;
  outline: string;
  cleaned: string[];
  low: number;
  high: number;
  now: number;
}

const POINTS = 180;
const ROOM = 0.36; // of the radius, for what is magnified

/** Radii are drawn so that everything from the smallest to the largest diameter takes about a third of the radius. */
export function layOutSection(section: Section, diameter: number, size: number): SectionPicture {
  const at = (turn: number) => {
    const found = section.mean + (section.oval / 2) * Math.cos(2 * (turn - (section.widest * Math.PI) / 180));
    return section.kind === 'bore' ? Math.max(found, section.now) : Math.min(found, section.now);
  };
  const turns = Array.from({ length: POINTS }, (_, k) => (k * 2 * Math.PI) / POINTS);
  const all = [...turns.map(at), section.low, section.high, section.now];
  const [least, most] = [Math.min(...all), Math.max(...all)];
  const outer = size / 2 - 4;
  const radius = scaleLinear([least, Math.max(most, least + 1)], [outer * (1 - ROOM), outer]);
  const outline =
    lineRadial<number>()
      .angle((turn) => Math.PI / 2 - turn)
      .radius((turn) => radius(at(turn)))
      .curve(curveLinearClosed)(turns) ?? '';
  // A diameter at a direction is the same half a turn on; what the tool has touched is where the form is at its size.
  const touched = turns.map((turn) => Math.abs(at(turn) - section.now) < 1e-9);
  const step = (2 * Math.PI) / POINTS;
  const cleaned = runs(touched).map(
    ([from, to]) =>
      arc()({
        innerRadius: outer * (1 - ROOM) * 0.86,
        outerRadius: outer * (1 - ROOM) * 0.97,
        startAngle: Math.PI / 2 - (to + 0.5) * step,
        endAngle: Math.PI / 2 - (from - 0.5) * step,
      }) ?? '',
  );
  const perUm = radius(least + 1) - radius(least);
  const scale = outer / ((diameter * 1000) / 2); // px per um of radius at which the part itself is drawn
  return {
    times: Number((perUm / 0.5 / scale).toPrecision(1)),
    outline,
    cleaned,
    low: radius(section.low),
    high: radius(section.high),
    now: radius(section.now),
  };
}

/** Where a ring of flags is set, as (first, last) places; the last may lie past the end of the ring. */
export function runs(flags: boolean[]): [number, number][] {
  if (flags.every(Boolean)) return flags.length ? [[0, flags.length - 1]] : [];
  const start = flags.findIndex((flag) => !flag);
  const found: [number, number][] = [];
  for (let k = start; k < start + flags.length; k++) {
    if (!flags[k % flags.length]) continue;
    const last = found.at(-1);
    if (last && last[1] === k - 1) last[1] = k;
    else found.push([k, k]);
  }
  return found;
}

export interface LengthPicture {
  points: { x: number; y: number; within: number; old: boolean }[];
  low: number;
  high: number;
  left: number;
  right: number;
}

export interface LengthReading {
  /** Place along the length, mm from its middle; the reading against the base, um; whether of an earlier round. */
  z: number;
  value: number;
  old: boolean;
}

export function layOutLength(
  readings: LengthReading[],
  limits: { low: number; high: number },
  length: number,
  within: number,
  width: number,
  height: number,
): LengthPicture {
  const values = readings.flatMap((one) => [one.value - within, one.value + within]);
  const y = scaleLinear([Math.min(limits.low, ...values) - 1, Math.max(limits.high, ...values) + 1], [height - 6, 6]);
  const x = scaleLinear([-length / 2, length / 2], [14, width - 14]);
  return {
    points: readings.map((one) => ({
      x: x(one.z),
      y: y(one.value),
      within: Math.abs(y(0) - y(within)),
      old: one.old,
    })),
    low: y(limits.low),
    high: y(limits.high),
    left: 4,
    right: width - 4,
  };
}
