import { describe, expect, it } from 'vitest';
import { barOf, sideOf, sidesOf, spread } from './sketch';

describe('the face to scale', () => {
  it('spreads the spots over the face, as large as they are', () => {
    const places = spread(
      [
        { id: 'a', name: 'gouges', count: 3, length_mm: 80, width_mm: 2 },
        { id: 'b', name: 'corner', area_cm2: 4 },
      ],
      1450,
      620,
    );
    expect(places.map((one) => one.key)).toEqual(['a', 'a', 'a', 'b']);
    expect(places.at(-1)).toMatchObject({ length: 20, width: 20 });
    for (const { x, y, length } of places) {
      expect(x - length / 2).toBeGreaterThan(0);
      expect(x + length / 2).toBeLessThan(1450);
      expect(y).toBeGreaterThan(0);
      expect(y).toBeLessThan(620);
    }
    expect(new Set(places.map(({ x, y }) => `${x} ${y}`)).size).toBe(4);
    expect(spread([], 100, 100)).toEqual([]);
  });

  it('lies along its longer side: a plate, what is unrolled, or a square of the area', () => {
    expect(sidesOf({ shape: { kind: 'plate', length_mm: 40, width_mm: 300 } }, 120)).toEqual([300, 40]);
    expect(sidesOf({ shape: { kind: 'cylinder', length_mm: 80, diameter_mm: 20 } }, 50)).toEqual([80, 62.5]);
    expect(sidesOf({}, 400)).toEqual([200, 200]);
  });

  it('has a bar of a round length', () => {
    expect([1450, 300, 75].map(barOf)).toEqual([200, 20, 10]);
    expect(sideOf(2.25)).toBe(15);
  });
});
