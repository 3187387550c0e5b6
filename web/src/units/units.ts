/** Shop units. Values travel in the units of the job file (mm, cm², µm, m/s); only what is shown or typed is converted. */

export type System = 'metric' | 'inch';
export type Quantity = 'depth' | 'roughness' | 'length' | 'area' | 'speed' | 'force' | 'mass' | 'temperature';

interface Unit {
  label: string;
  /** How many of the file's unit one of this unit is. */
  scale: number;
}

const UNITS: Record<Exclude<Quantity, 'temperature'>, Record<System, Unit>> = {
  depth: { metric: { label: 'µm', scale: 1 }, inch: { label: 'thou', scale: 25.4 } },
  roughness: { metric: { label: 'µm', scale: 1 }, inch: { label: 'µin', scale: 0.0254 } },
  length: { metric: { label: 'mm', scale: 1 }, inch: { label: 'in', scale: 25.4 } },
  area: { metric: { label: 'cm²', scale: 1 }, inch: { label: 'in²', scale: 6.4516 } },
  speed: { metric: { label: 'm/s', scale: 1 }, inch: { label: 'ft/min', scale: 0.00508 } },
  mass: { metric: { label: 'g', scale: 1 }, inch: { label: 'oz', scale: 28.349523 } },
  force: { metric: { label: 'N', scale: 1 }, inch: { label: 'lbf', scale: 4.4482216 } },
};

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

/** Rounded to so many significant figures, never with an exponent, and with a thin space at thousands. */
export function figures(value: number, digits = 2): string {
  if (!Number.isFinite(value)) return '–';
  if (value === 0) return '0';
  const rounded = Number(value.toPrecision(digits));
  const decimals = Math.max(0, digits - 1 - Math.floor(Math.log10(Math.abs(rounded))));
  const text = rounded.toFixed(Math.min(decimals, 6));
  const trimmed = text.includes('.') ? text.replace(/\.?0+$/, '') : text;
  return trimmed.replace(/\B(?=(\d{3})+$)/g, trimmed.includes('.') ? '' : '\u202f');
}

/** A whole number with a thin space at thousands. */
export function whole(value: number): string {
  return Math.round(value)
    .toString()
    .replace(/\B(?=(\d{3})+$)/g, '\u202f');
}

/** A speed to set, to three figures and never above what was planned. */
export function settable(rpm: number): number {
  if (rpm <= 0) return 0;
  const unit = 10 ** (Math.floor(Math.log10(rpm)) - 2);
  return Math.floor(rpm / unit + 1e-9) * unit;
}

/** What stands in a field that can be typed in: enough figures to lose nothing that was typed. */
export function typed(value: number, quantity: Quantity | null, system: System): string {
  const shown = quantity ? toShown(value, quantity, system) : value;
  // An inch value that was typed in mm is never round: four figures are enough to read, and nothing changes until it is typed over.
  return String(Number(shown.toPrecision(system === 'inch' ? 4 : 6)));
}

/** A typed number, with a comma or a point; null when it is none. */
export function parseNumber(text: string): number | null {
  const cleaned = text
    .trim()
    .replace(/[\s\u202f]/g, '')
    .replace(',', '.');
  if (!/^-?(\d+\.?\d*|\.\d+)(e-?\d+)?$/i.test(cleaned)) return null;
  const value = Number(cleaned);
  return Number.isFinite(value) ? value : null;
}

/** Minutes as people say them: 45 s, 6.5 min, 38 min, 2 h 20. */
export function duration(minutes: number): string {
  if (minutes < 1) return `${Math.round(minutes * 60)} s`;
  if (minutes < 10) return `${figures(minutes)} min`;
  if (minutes < 90) return `${Math.round(minutes)} min`;
  const rounded = Math.round(minutes / 5) * 5;
  const hours = Math.floor(rounded / 60);
  const rest = rounded % 60;
  return rest ? `${hours} h ${String(rest).padStart(2, '0')}` : `${hours} h`;
}

/** Minutes and seconds as a clock shows them. */
export function clock(seconds: number): string {
  const all = Math.max(0, Math.floor(seconds));
  const hours = Math.floor(all / 3600);
  const minutes = Math.floor((all % 3600) / 60);
  const rest = String(all % 60).padStart(2, '0');
  return hours ? `${hours}:${String(minutes).padStart(2, '0')}:${rest}` : `${minutes}:${rest}`;
}

/** What the server says comes in metric; its figures are put into the units shown. "Ra ... µm" is a roughness. */
const WRITTEN: [RegExp, Quantity][] = [
  [/(Ra (?:at most |to )?)([\d.]+)( to )?([\d.]+)? µm/g, 'roughness'],
  [/()([\d.]+)(–| to )?([\d.]+)? µm/g, 'depth'],
  [/()([\d.]+)(–| to )?([\d.]+)? mm\b/g, 'length'],
  [/()([\d.]+)(–| to )?([\d.]+)? m\/s/g, 'speed'],
  [/()([\d.]+)(–| to )?([\d.]+)? cm²/g, 'area'],
  [/()([\d.]+)(–| to )?([\d.]+)? °C/g, 'temperature'],
];

export function converted(text: string, system: System): string {
  if (system === 'metric') return text;
  const put = (number: string, quantity: Quantity) => figures(toShown(Number(number), quantity, system), 3);
  return WRITTEN.reduce(
    (said, [pattern, quantity]) =>
      said.replace(pattern, (_, before: string, first: string, between?: string, second?: string) => {
        const rest = second === undefined ? '' : `${between}${put(second, quantity)}`;
        return `${before}${put(first, quantity)}${rest} ${unitLabel(quantity, system)}`;
      }),
    text,
  );
}
