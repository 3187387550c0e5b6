/** Shop units. Values travel in the units of the job file (mm, cm², µm, m/s); only what is shown or typed is converted. */

export type System = 'metric' | 'inch';
export type Quantity =
  | 'depth'
  | 'roughness'
  | 'length'
  | 'size'
  | 'area'
  | 'speed'
  | 'turns'
  | 'temperature'
  | 'mass'
  | 'force'
  | 'hardness'
  | 'time'
  | 'gloss';

interface Unit {
  label: string;
  /** How many of the file's unit one of this unit is. */
  scale: number;
}

const same = (label: string) => ({ metric: { label, scale: 1 }, inch: { label, scale: 1 } });
const UNITS: Record<Exclude<Quantity, 'temperature'>, Record<System, Unit>> = {
  depth: { metric: { label: 'µm', scale: 1 }, inch: { label: 'thou', scale: 25.4 } },
  roughness: { metric: { label: 'µm', scale: 1 }, inch: { label: 'µin', scale: 0.0254 } },
  length: { metric: { label: 'mm', scale: 1 }, inch: { label: 'in', scale: 25.4 } },
  size: { metric: { label: 'mm', scale: 1 }, inch: { label: 'in', scale: 25.4 } },
  area: { metric: { label: 'cm²', scale: 1 }, inch: { label: 'in²', scale: 6.4516 } },
  speed: { metric: { label: 'm/s', scale: 1 }, inch: { label: 'ft/min', scale: 0.00508 } },
  turns: same('rev/min'),
  mass: { metric: { label: 'g', scale: 1 }, inch: { label: 'oz', scale: 28.349523125 } },
  force: { metric: { label: 'N', scale: 1 }, inch: { label: 'lbf', scale: 4.4482216152605 } },
  hardness: same('GPa'),
  time: same('s'),
  gloss: same('GU'),
};
/** Speeds have a limit: they are rounded down, and to no fewer figures than these. */
const DOWN: Partial<Record<Quantity, number>> = { speed: 3, turns: 3 };

/** How many of the file's unit one shown unit is, for scales that must be round in what is shown. */
export function unitScale(quantity: Exclude<Quantity, 'temperature'>, system: System): number {
  return UNITS[quantity][system].scale;
}

export function unitLabel(quantity: Quantity, system: System): string {
  if (quantity === 'temperature') return system === 'metric' ? '°C' : '°F';
  return UNITS[quantity][system].label;
}

/** From the file's unit to the one shown. */
export function toShown(value: number, quantity: Quantity, system: System): number {
  if (quantity === 'temperature') return system === 'metric' ? value : value * 1.8 + 32;
  return value / UNITS[quantity][system].scale;
}

/** From the one shown to the file's unit. */
export function fromShown(value: number, quantity: Quantity, system: System): number {
  if (quantity === 'temperature') return system === 'metric' ? value : (value - 32) / 1.8;
  return value * UNITS[quantity][system].scale;
}

/** A value without its unit, as far as it is known: whole degrees, and speeds never above what they are. */
export function bare(value: number, quantity: Quantity, system: System, digits = 2): string {
  const there = toShown(value, quantity, system);
  if (quantity === 'temperature') return there.toFixed(0).replace('-0', '0');
  const least = DOWN[quantity];
  return least ? figures(roundedDown(there, Math.max(least, digits)), 9) : figures(there, digits);
}

/** Rounded to so many significant figures, never with an exponent, and with a thin space at thousands. */
export function figures(value: number, digits = 2): string {
  if (!Number.isFinite(value)) return '–';
  if (value === 0) return '0';
  const rounded = Number(value.toPrecision(digits));
  const decimals = Math.max(0, digits - 1 - Math.floor(Math.log10(Math.abs(rounded))));
  const text = rounded.toFixed(Math.min(decimals, 10));
  const trimmed = text.includes('.') ? text.replace(/\.?0+$/, '') : text;
  return trimmed.replace(/\B(?=(\d{3})+$)/g, trimmed.includes('.') ? '' : '\u202f');
}

/** A whole number with a thin space at thousands. */
export function whole(value: number): string {
  return Math.round(value)
    .toString()
    .replace(/\B(?=(\d{3})+$)/g, '\u202f');
}

/** To so many figures and never above. */
export function roundedDown(value: number, digits = 3): number {
  if (value <= 0) return 0;
  const unit = 10 ** (Math.floor(Math.log10(value)) - digits + 1);
  return Number((Math.floor(value / unit + 1e-9) * unit).toPrecision(digits));
}

/** What stands in a field that can be typed in: enough figures to lose nothing that was typed. */
export function typed(value: number, quantity: Quantity | null, system: System): string {
  const shown = quantity ? toShown(value, quantity, system) : value;
  // An inch value that was typed in mm is never round: four figures are enough to read, and nothing changes until it is typed over.
  // A size is read to a tenth of a micrometre, or a hundred-thousandth of an inch.
  const digits = quantity === 'size' ? 7 : system === 'inch' ? 4 : 6;
  return String(Number(shown.toPrecision(digits)));
}

const SPACES = /(?<=\d)[\s\u00a0\u202f'’](?=\d{3}(?!\d))/g;
const PLAIN = /^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i;
const COMMAS = /^[+-]?[1-9]\d{0,2}(,\d{3})+(\.\d*)?$/;
const POINTS = /^[+-]?[1-9]\d{0,2}((\.\d{3}){2,}|(\.\d{3})+,\d*)(,\d*)?$/;
const EITHER = /^[+-]?[1-9]\d{0,2},\d{3}$/;

/**
 * A typed number, or what is wrong with it. A comma is a decimal sign or stands between thousands; where it could be both,
 * the person is asked. The server reads files by the same rules (`documents/common/numbers.py`).
 */
export function readNumber(text: string): number | { wrong: string } {
  let written = text.trim().replace(SPACES, '').replace('−', '-');
  if (EITHER.test(written)) {
    const part = written.replace(',', '.').replace(/\.?0+$/, '');
    return { wrong: `This can be read in two ways: write ${written.replace(',', '')}, or ${part}` };
  }
  if (COMMAS.test(written)) written = written.replaceAll(',', '');
  else if (POINTS.test(written)) written = written.replaceAll('.', '').replace(',', '.');
  else if (!written.includes('.') && written.split(',').length === 2) written = written.replace(',', '.');
  const value = Number(written);
  if (!PLAIN.test(written) || !Number.isFinite(value)) return { wrong: 'This is not a number' };
  return value;
}

const OF_UNIT: Record<string, Quantity> = {
  um: 'depth',
  mm: 'length',
  cm2: 'area',
  'm/s': 'speed',
  'rev/min': 'turns',
  C: 'temperature',
  N: 'force',
  g: 'mass',
  GPa: 'hardness',
  s: 'time',
};
/** Units of material data and prices stay as they are published. */
const WRITTEN: Record<string, string> = {
  '1': '',
  mm2: 'mm²',
  'kg/m3': 'kg/m³',
  'W/m2K': 'W/m²K',
  money: '',
  deg: '°',
};

/** A figure of the tables or of a sum in the unit shown. `name`: what it is, for micrometres of Ra are no depth. */
export function inUnit(value: number, unit: string, name: string, system: System, digits?: number): string {
  const quantity = unit === 'um' && /\b(ra|roughness)\b/i.test(name) ? 'roughness' : OF_UNIT[unit];
  if (unit === 'K' && system === 'inch') return `${figures(value * 1.8, digits ?? 4)} °F`; // a difference
  const there = quantity ? toShown(value, quantity, system) : value;
  const label = quantity ? unitLabel(quantity, system) : (WRITTEN[unit] ?? unit);
  const said = digits ? figures(there, digits) : String(Number(there.toPrecision(system === 'inch' ? 4 : 12)));
  return `${said} ${label}`.trim();
}

/** Minutes in the one form of times, no finer than they are known; as `core/wording.py` has them. */
export function duration(minutes: number): string {
  if (minutes <= 0) return '0 min';
  if (minutes < 4.75) return `${Math.max(0.5, Math.round(2 * minutes) / 2)} min`;
  if (minutes < 89.5) return `${Math.round(minutes)} min`;
  if (minutes < 597.5) {
    const rounded = 5 * Math.round(minutes / 5);
    const rest = rounded % 60;
    return `${Math.floor(rounded / 60)} h${rest ? ` ${String(rest).padStart(2, '0')}` : ''}`;
  }
  return `${figures(minutes / 60)} h`;
}

/** Likely minutes, and what nine of ten stay below where that is known; as `core/wording.py` has them. */
export function span(of: { minutes: number; minutes_high?: number | null }): string {
  const [low, high] = [duration(of.minutes), duration(of.minutes_high ?? of.minutes)];
  if (low === high) return low;
  return `${high.endsWith(' min') ? low.replace(/ min$/, '') : low} to ${high}`;
}

/** A label within a sentence: its first letter is small, unless it is a symbol or a code as in "Ra" and "N5". */
export function inSentence(label: string): string {
  return /^(?:Ra\b|.[A-Z\d])/.test(label) ? label : label.charAt(0).toLowerCase() + label.slice(1);
}

/** A text that begins a line. */
export function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** How much longer or shorter; nothing that is too little to know. */
export function difference(minutes: number): string {
  if (Math.abs(minutes) < 0.25) return 'same time';
  return `${minutes > 0 ? '+' : '−'}${duration(Math.abs(minutes))}`;
}

/** Minutes and seconds as a clock shows them. */
export function clock(seconds: number): string {
  const all = Math.max(0, Math.floor(seconds));
  const hours = Math.floor(all / 3600);
  const minutes = Math.floor((all % 3600) / 60);
  const rest = String(all % 60).padStart(2, '0');
  return hours ? `${hours}:${String(minutes).padStart(2, '0')}:${rest}` : `${minutes}:${rest}`;
}

/** A planned time beside a running clock, in its form and to whole five seconds. */
export function plannedClock(seconds: number): string {
  return clock(Math.max(5, 5 * Math.round(seconds / 5)));
}

const SHARES: [number, string][] = [
  [0.05, 'a little of'],
  [0.15, 'a tenth of'],
  [0.29, 'a quarter of'],
  [0.42, 'a third of'],
  [0.59, 'half of'],
  [0.71, 'two thirds of'],
  [0.87, 'three quarters of'],
];

/** How much of an abrasive or a bar is used up, as one would say it: a share of one, or how many. */
export function usedUp(count: number, unit: string): string {
  if (count <= 0) return `no ${unit}`;
  const share = SHARES.find(([most]) => count < most);
  if (share) return `${share[1]} a ${unit}`.replace(/ a (?=[aeiou])/, ' an ');
  const rounded = count < 3 ? Math.max(1, Math.round(2 * count) / 2) : Math.round(count);
  return `${rounded === 1.5 ? 'one and a half' : rounded === 2.5 ? 'two and a half' : rounded} ${unit}${rounded === 1 ? '' : 's'}`;
}

/** So many of a thing: `1 change`, `2 changes`. */
export function counted(count: number, thing: string): string {
  return `${count} ${thing}${count === 1 ? '' : 's'}`;
}
