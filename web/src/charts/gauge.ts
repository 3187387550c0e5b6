/** The speed gauge: where the setting lies in the recommended band, and how far below the wheel's mark. */

export interface Gauge {
  width: number;
  bandX: number;
  bandWidth: number;
  markX: number | null;
  limitX: number | null;
}

export function layOutGauge(speed: number, band: [number, number], limit: number | null, width: number): Gauge {
  const top = Math.max(band[1], speed, limit ?? 0) * 1.12;
  const x = (value: number) => (value / top) * width;
  return {
    width,
    bandX: x(band[0]),
    bandWidth: x(Math.min(band[1], limit ?? Infinity)) - x(band[0]),
    markX: x(speed),
    limitX: limit === null ? null : x(limit),
  };
}
