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

/** A column of the board: what one person, one spindle or nobody does. */
export interface Lane<Block> {
  id: string;
  label: string;
  kind: 'person' | 'spindle' | 'waiting';
  blocks: Block[];
}

/** What is drawn as one: blocks that follow each other, of one job where they are long enough to be told apart. */
export interface Piece<Block> {
  id: string;
  blocks: Block[];
  from: number;
  to: number;
}

const MINUTES_A_DAY = 1440;

/** A lane for each person, also without work; or, where machines are wanted, for each spindle that is used; then what waits. */
export function lanesOf<Block extends BoardBlock>(
  blocks: Block[],
  people: string[],
  machineLabel: ((id: string) => string) | null,
): Lane<Block>[] {
  const waits = blocks.filter((one) => one.kind === 'wait');
  const waiting = waits.length
    ? [{ id: 'waiting', label: 'Soaks, dries', kind: 'waiting' as const, blocks: waits }]
    : [];
  return [...(machineLabel ? spindlesOf(blocks, machineLabel) : peopleOf(blocks, people)), ...waiting];
}

function peopleOf<Block extends BoardBlock>(blocks: Block[], people: string[]): Lane<Block>[] {
  const named = [...new Set([...people, ...blocks.flatMap((one) => (one.person === null ? [] : [one.person]))])];
  return named.map((name) => ({
    id: `person ${name}`,
    label: name,
    kind: 'person' as const,
    blocks: blocks.filter((one) => one.person === name),
  }));
}

function spindlesOf<Block extends BoardBlock>(blocks: Block[], machineLabel: (id: string) => string): Lane<Block>[] {
  const spindles = [
    ...new Map(
      blocks
        .filter((one) => one.machine !== null && one.spindle !== null)
        .map((one) => [`${one.machine} ${one.spindle}`, one] as const),
    ).entries(),
  ].sort(([a], [b]) => a.localeCompare(b));
  const several = (machine: string | null) => spindles.filter(([, one]) => one.machine === machine).length > 1;
  return spindles.map(([id, of]) => ({
    id,
    label: machineLabel(of.machine ?? '') + (several(of.machine) ? `, spindle ${of.spindle}` : ''),
    kind: 'spindle' as const,
    blocks: blocks.filter((one) => one.machine === of.machine && one.spindle === of.spindle),
  }));
}

/** The blocks of one lane as they are drawn: neighbours of one job are one, and one that would be lower than `least` minutes and
 * touch what follows is joined to its shorter neighbour, so that everything can be read and hit. */
export function piecesOf<Block extends BoardBlock>(
  blocks: Block[],
  jobOf: (block: Block) => number | string,
  least: number,
): Piece<Block>[] {
  const pieces: Piece<Block>[] = [];
  for (const block of [...blocks].sort((a, b) => a.from_min - b.from_min)) {
    const last = pieces.at(-1);
    if (last && block.from_min - last.to < 1 && last.blocks.every((one) => jobOf(one) === jobOf(block)))
      join(last, block);
    else pieces.push({ id: `${block.key} ${block.kind}`, blocks: [block], from: block.from_min, to: block.to_min });
  }
  const room = (at: number) => (pieces[at + 1]?.from ?? Infinity) - (pieces[at]?.from ?? 0);
  const long = (at: number) => {
    const piece = pieces[at];
    return piece ? piece.to - piece.from : Infinity;
  };
  for (;;) {
    const tight = pieces.findIndex((_, at) => room(at) < least);
    if (tight === -1) return pieces;
    const near = tight > 0 && (pieces[tight]?.from ?? 0) - (pieces[tight - 1]?.to ?? 0) < least;
    const into = near && long(tight - 1) < long(tight + 1) ? tight - 1 : tight;
    const [first, second] = pieces.splice(into, 2);
    if (!first || !second) return pieces;
    second.blocks.forEach((block) => join(first, block));
    pieces.splice(into, 0, first);
  }
}

function join<Block extends BoardBlock>(piece: Piece<Block>, block: Block) {
  piece.blocks.push(block);
  piece.to = Math.max(piece.to, block.to_min);
}

/** What waits at the same time stands side by side: how many columns that takes, and in which of them each block is. */
export function columnsOf<Block extends BoardBlock>(
  blocks: Block[],
  least: number,
): { block: Block; column: number }[] {
  const ends: number[] = [];
  return [...blocks]
    .sort((a, b) => a.from_min - b.from_min)
    .map((block) => {
      const free = ends.findIndex((end) => end <= block.from_min);
      const column = free === -1 ? ends.length : free;
      ends[column] = Math.max(block.to_min, block.from_min + least);
      return { block, column };
    });
}

/** The hours from the first full one before everything to the first full one after it and the end of the day, as minutes. */
export function span(blocks: { from_min: number; to_min: number }[], least: number): [number, number] {
  const low = blocks.length ? Math.min(...blocks.map((one) => one.from_min)) : 0;
  const high = Math.max(least, ...blocks.map((one) => one.to_min));
  return [Math.floor(low / 60) * 60, Math.ceil(high / 60) * 60];
}

/** A time of day as minutes since midnight. */
export function minuteOfDay(clock: string): number {
  const [hours, minutes] = clock.split(':').map(Number);
  return (hours ?? 0) * 60 + (minutes ?? 0);
}

/** A minute since the board's beginning as a time of day. */
export function clockAt(minute: number, begins: string): string {
  const at = (((minuteOfDay(begins) + minute) % MINUTES_A_DAY) + MINUTES_A_DAY) % MINUTES_A_DAY;
  return `${String(Math.floor(at / 60)).padStart(2, '0')}:${String(at % 60).padStart(2, '0')}`;
}

/** A minute since the board's beginning in words: the time, and the weekday where that is not the day on which it begins. */
export function timeAt(minute: number, begins: string, firstDate?: string): string {
  const day = Math.floor((minuteOfDay(begins) + minute) / MINUTES_A_DAY);
  if (day === 0) return clockAt(minute, begins);
  const named = firstDate
    ? dateOf(firstDate, day).toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric' })
    : `day ${day + 1},`;
  return `${named} ${clockAt(minute, begins)}`;
}

/** The date so many days after the board's first. */
export function dateOf(firstDate: string, days: number): Date {
  const date = new Date(`${firstDate}T12:00:00`);
  date.setDate(date.getDate() + days);
  return date;
}

/** The first day that a board shows: today (0), or one before it when something of then is still there. */
export function firstDayOf(blocks: { day: number }[]): number {
  return Math.min(0, ...blocks.map((one) => one.day));
}

/** The block that begins first. */
export function firstOf<Block extends BoardBlock>(blocks: Block[]): Block | null {
  return blocks.reduce<Block | null>((first, one) => (first && first.from_min <= one.from_min ? first : one), null);
}

/** What somebody does: the block that runs now or is next, and the one after it; both without what is done. */
export function nowAndNext<Block extends BoardBlock>(
  blocks: Block[],
  person: string,
  done: string[],
  now: number,
): [Block | null, Block | null] {
  const mine = inTurn(
    blocks.filter((one) => one.person === person),
    done,
    now,
  );
  return [mine[0] ?? null, mine[1] ?? null];
}

/** Letters tell jobs apart, with or without colours: A to Z, then A2 and on. */
export function letterOf(at: number): string {
  const round = Math.floor(at / 26);
  return String.fromCharCode(65 + (at % 26)) + (round ? String(round + 1) : '');
}

/** What a job of the board has of its promise; null where nothing is promised. */
export interface PromiseState {
  kind: 'late' | 'good';
  /** Late by so many, or to spare. */
  minutes: number;
}

export function promiseOf(job: {
  ends_min: number | null;
  due_min: number | null;
  late_min: number;
}): PromiseState | null {
  if (job.due_min === null || job.ends_min === null) return null;
  return job.late_min > 0
    ? { kind: 'late', minutes: job.late_min }
    : { kind: 'good', minutes: job.due_min - job.ends_min };
}

/** What is not done yet of these blocks, from the one that runs now or comes next; what should be over long since comes last. */
export function inTurn<Block extends BoardBlock>(blocks: Block[], done: string[], now: number): Block[] {
  const left = blocks
    .filter((one) => one.kind === 'work' && !done.includes(one.key))
    .sort((a, b) => a.from_min - b.from_min);
  const at = left.findIndex((one) => one.to_min > now);
  return at === -1 ? left.slice(-1) : left.slice(at);
}
