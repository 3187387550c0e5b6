import { describe, expect, test } from 'vitest';
import { layOutLength, layOutSection, runs, type Section } from './section';

const SECTION: Section = { mean: 0, oval: 20, widest: 0, now: -10, low: 10, high: 31, kind: 'bore' };

describe('a section', () => {
  test('limits stand outside one another, and a larger oval is drawn less magnified', () => {
    const drawn = layOutSection(SECTION, 20, 300);
    expect(drawn.low).toBeLessThan(drawn.high);
    expect(drawn.now).toBeLessThan(drawn.low);
    expect(drawn.high).toBeCloseTo(146);
    expect(layOutSection({ ...SECTION, oval: 200, now: -100 }, 20, 300).times).toBeLessThan(drawn.times);
  });

  test('what the tool has touched is tinted: nothing, both narrow sides, everything', () => {
    expect(layOutSection({ ...SECTION, now: -11 }, 20, 300).cleaned).toHaveLength(0);
    expect(layOutSection({ ...SECTION, now: 0 }, 20, 300).cleaned).toHaveLength(2);
    expect(layOutSection({ ...SECTION, now: 11 }, 20, 300).cleaned).toHaveLength(1);
    // A shaft is cut from the wide side.
    expect(layOutSection({ ...SECTION, kind: 'shaft', now: 11 }, 20, 300).cleaned).toHaveLength(0);
    expect(layOutSection({ ...SECTION, kind: 'shaft', now: 0 }, 20, 300).cleaned).toHaveLength(2);
  });

  test('runs go on over the end of the ring', () => {
    expect(runs([true, false, true, true])).toEqual([[2, 4]]);
    expect(runs([false, true, false, true])).toEqual([
      [1, 1],
      [3, 3],
    ]);
    expect(runs([true, true])).toEqual([[0, 1]]);
    expect(runs([false])).toEqual([]);
  });
});

describe('readings along the length', () => {
  test('larger is higher, ends are at the ends, bars are as wide as the gauge', () => {
    const drawn = layOutLength(
      [
        { z: -20, value: 5, old: true },
        { z: 20, value: 15, old: false },
      ],
      { low: 0, high: 21 },
      40,
      2,
      300,
      120,
    );
    expect(drawn.points[0]?.y).toBeGreaterThan(drawn.points[1]?.y ?? 0);
    expect(drawn.points.map((point) => point.x)).toEqual([14, 286]);
    expect(drawn.high).toBeLessThan(drawn.low);
    expect((drawn.points[0]?.within ?? 0) * 10).toBeCloseTo(
      (drawn.points[0]?.y ?? 0) * 2 - (drawn.points[1]?.y ?? 0) * 2,
      5,
    );
  });
});
