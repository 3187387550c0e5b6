/** The board of a day: rows of people, spindles and waiting, with blocks across the hours. Minutes count from its beginning. */

export interface BoardBlock {
  key: string;
  job: string;
  label: string;
  person: string | null;
  machine: string | null;
  spindle: number | null;
  from_min: number;
  to_min: number;
  day: number;
  kind: string;
}

export interface BoardRow<Block> {
  id: string;
  label: string;
  kind: 'person' | 'spindle' | 'waiting';
  blocks: Block[];
}

const MINUTES_A_DAY = 1440;

/** The minute at which a day of the board begins: the first is day 0. */
export function beginsAt(day: number, firstDay: number): number {
  return (day - firstDay) * MINUTES_A_DAY;
}

/** Rows for people (each there, also without work), then spindles that are used, then what waits by itself. */
export function rowsOf<Block extends BoardBlock>(
  blocks: Block[],
  people: string[],
  machineLabel: (id: string) => string,
): BoardRow<Block>[] {
  const named = [...new Set([...people, ...blocks.flatMap((one) => (one.person === null ? [] : [one.person]))])];
  const spindles = [
    ...new Map(
      blocks
        .filter((one) => one.machine !== null && one.spindle !== null)
        .map((one) => [`${one.machine} ${one.spindle}`, one] as const),
    ).entries(),
  ].sort(([a], [b]) => a.localeCompare(b));
  const waits = blocks.filter((one) => one.kind === 'wait');
  const several = (machine: string | null) => spindles.filter(([, one]) => one.machine === machine).length > 1;
  return [
    ...named.map((name) => ({
      id: `person ${name}`,
      label: name,
      kind: 'person' as const,
      blocks: blocks.filter((one) => one.person === name),
    })),
    ...spindles.map(([id, of]) => ({
      id,
      label: machineLabel(of.machine ?? '') + (several(of.machine) ? `, spindle ${of.spindle}` : ''),
      kind: 'spindle' as const,
      blocks: blocks.filter((one) => one.machine === of.machine && one.spindle === of.spindle),
    })),
    ...(waits.length ? [{ id: 'waiting', label: 'Soaks, dries', kind: 'waiting' as const, blocks: waits }] : []),
  ];
}

/** The hours from the first full one before everything to the first full one after it, as minutes. */
export function span(blocks: { from_min: number; to_min: number }[], least: number): [number, number] {
  const low = Math.min(0, ...blocks.map((one) => one.from_min));
  const high = Math.max(least, ...blocks.map((one) => one.to_min));
  return [Math.floor(low / 60) * 60, Math.ceil(high / 60) * 60];
}

/** A minute since the board's beginning as a time of day. */
export function clockAt(minute: number, begins: string): string {
  const [hours, minutes] = begins.split(':').map(Number);
  const at = ((((hours ?? 0) * 60 + (minutes ?? 0) + minute) % MINUTES_A_DAY) + MINUTES_A_DAY) % MINUTES_A_DAY;
  return `${String(Math.floor(at / 60)).padStart(2, '0')}:${String(at % 60).padStart(2, '0')}`;
}

/** A minute since the board's beginning in words: the time, and the day where that is not the first. */
export function timeAt(minute: number, begins: string): string {
  const [hours, minutes] = begins.split(':').map(Number);
  const day = Math.floor(((hours ?? 0) * 60 + (minutes ?? 0) + minute) / MINUTES_A_DAY);
  return `${day === 0 ? '' : `day ${day + 1}, `}${clockAt(minute, begins)}`;
}

/** The first day that a board shows: today (0), or one before it when something of then is still there. */
export function firstDayOf(blocks: { day: number }[]): number {
  return Math.min(0, ...blocks.map((one) => one.day));
}

/** When a block begins: the time, and the day as the board counts them when it is another one than today. */
export function whenOf(block: BoardBlock, firstDay: number, begins: string): string {
  const at = clockAt(block.from_min, begins);
  return block.day > 0 ? `day ${block.day - firstDay + 1}, ${at}` : at;
}

/** The block that begins first. */
export function firstOf<Block extends BoardBlock>(blocks: Block[]): Block | null {
  return blocks.reduce<Block | null>((first, one) => (first && first.from_min <= one.from_min ? first : one), null);
}

/** What somebody does next: the block that runs now, or the first that begins after; null when all is done. */
export function nextOf<Block extends BoardBlock>(
  blocks: Block[],
  person: string,
  done: string[],
  now: number,
): Block | null {
  const mine = blocks
    .filter((one) => one.person === person && !done.includes(one.key))
    .sort((a, b) => a.from_min - b.from_min);
  return mine.find((one) => one.to_min > now) ?? mine.at(-1) ?? null;
}
