import { describe, expect, test } from 'vitest';
import { layOutRoutes, nextAcross, shapeOf, type RoutePoint } from './routes';

const point = (minutes: number, value: number, changes = 1, names: string[] = []): RoutePoint => ({
  minutes,
  value,
  changes,
  names,
});

describe('routes as points', () => {
  test('more minutes are further right, more metal is higher up, and all are inside', () => {
    const drawn = layOutRoutes([point(20, 50), point(30, 40), point(40, 35)], 400, 300);
    expect(drawn.marks.map((mark) => mark.x)).toEqual([...drawn.marks.map((mark) => mark.x)].sort((a, b) => a - b));
    expect(drawn.marks[0]?.y).toBeLessThan(drawn.marks[2]?.y ?? 0);
    for (const mark of drawn.marks) {
      expect(mark.x).toBeGreaterThanOrEqual(drawn.left);
      expect(mark.x).toBeLessThanOrEqual(drawn.right);
      expect(mark.y).toBeGreaterThanOrEqual(drawn.top);
      expect(mark.y).toBeLessThanOrEqual(drawn.bottom);
    }
  });

  test('a wide spread is drawn in ratios: the same ratio is the same distance', () => {
    const [a, b, c] = layOutRoutes([point(10, 1), point(100, 1), point(1000, 1)], 400, 300).marks;
    expect((b?.x ?? 0) - (a?.x ?? 0)).toBeCloseTo((c?.x ?? 0) - (b?.x ?? 0));
    const [d, e, f] = layOutRoutes([point(10, 1), point(20, 1), point(30, 1)], 400, 300).marks;
    expect((e?.x ?? 0) - (d?.x ?? 0)).toBeCloseTo((f?.x ?? 0) - (e?.x ?? 0));
  });

  test('one route alone, and routes that cost nothing, have a place', () => {
    for (const points of [[point(20, 50)], [point(20, 0), point(30, 0)], [point(20, 0), point(30, 100)]]) {
      for (const mark of layOutRoutes(points, 400, 300).marks) expect(Number.isFinite(mark.x + mark.y)).toBe(true);
    }
  });

  test('every number of changes to four has a shape of its own', () => {
    expect(new Set([0, 1, 2, 3, 4].map((changes) => shapeOf(changes))).size).toBe(5);
    expect(shapeOf(9)).toBe(shapeOf(4));
  });

  test('names do not lie on one another, and are written to the left at the right end', () => {
    const drawn = layOutRoutes(
      [point(20, 50, 1, ['Long steps']), point(20.1, 50, 1, ['Early wheel']), point(40, 50, 1, ['Least'])],
      400,
      300,
    );
    expect(Math.abs((drawn.marks[0]?.labelY ?? 0) - (drawn.marks[1]?.labelY ?? 0))).toBeGreaterThan(10);
    expect(drawn.marks.map((mark) => mark.anchor)).toEqual(['start', 'start', 'end']);
  });

  test('names stay inside the picture, also where many points lie low', () => {
    const low = Array.from({ length: 5 }, (_, at) => point(20 + at / 10, 5, 1, [`School ${at}`]));
    const drawn = layOutRoutes([...low, point(90, 500)], 400, 250);
    const lines = drawn.marks.slice(0, 5).map((mark) => mark.labelY);
    expect(new Set(lines).size).toBe(5);
    for (const y of lines) expect(y).toBeLessThan(drawn.bottom);
  });

  test('keys go by minutes and stop at the ends', () => {
    const points = [point(30, 1), point(10, 2), point(20, 3)];
    expect(nextAcross(points, 1, 1)).toBe(2);
    expect(nextAcross(points, 2, 1)).toBe(0);
    expect(nextAcross(points, 0, 1)).toBe(0);
    expect(nextAcross(points, 1, -1)).toBe(1);
  });
});
