import { expect, test } from 'vitest';
import { atFirst, lampAt, moved } from './lamp';

const START = atFirst({ height: 16, direction: 118 });

test('the lamp is a direction of length one, low at the side', () => {
  const [x, y, z] = lampAt({ height: 30, direction: 90 });
  expect(Math.hypot(x, y, z)).toBeCloseTo(1);
  expect(z).toBeCloseTo(0.5);
  expect(x).toBeCloseTo(0);
  expect(y).toBeGreaterThan(0);
});

test('the lamp never goes below the surface or over the top, and goes round', () => {
  expect(moved(START, -100, 0).height).toBe(4);
  expect(moved(START, 100, 0).height).toBe(85);
  expect(moved({ ...START, direction: 350 }, 0, 20).direction).toBe(10);
  expect(moved({ ...START, direction: 5 }, 0, -10).direction).toBe(355);
});
