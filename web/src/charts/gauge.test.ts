import { expect, it } from 'vitest';
import { layOutGauge } from './gauge';

it('never draws the recommended band beyond the marked limit', () => {
  const gauge = layOutGauge(20, [15, 60], 40, 200);
  expect(gauge.bandX + gauge.bandWidth).toBeCloseTo(gauge.limitX!);
  expect(gauge.markX!).toBeLessThan(gauge.limitX!);
});

it('keeps everything inside its width', () => {
  const gauge = layOutGauge(20, [15, 30], 48, 200);
  for (const x of [gauge.bandX, gauge.markX!, gauge.limitX!]) expect(x).toBeLessThanOrEqual(200);
});
