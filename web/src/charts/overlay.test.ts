import { describe, expect, it } from 'vitest';
import { middle, polygon, similarity, type Point } from './overlay';

const moved = (m: number[], [x, y]: Point): Point => [m[0]! * x + m[2]! * y + m[4]!, m[1]! * x + m[3]! * y + m[5]!];

describe('two photos over each other', () => {
  it('puts both points where they are on the other, turned and sized', () => {
    const m = similarity([[10, 20], [110, 20]], [[300, 100], [300, 300]])!; // prettier-ignore
    expect(moved(m, [10, 20])).toEqual([300, 100]);
    expect(moved(m, [110, 20])[0]).toBeCloseTo(300);
    expect(moved(m, [110, 20])[1]).toBeCloseTo(300);
    expect(moved(m, [10, 120])[0]).toBeCloseTo(100); // a right angle stays one, twice the size
  });

  it('is nothing where both points are one', () => {
    expect(similarity([[5, 5], [5, 5]], [[0, 0], [9, 9]])).toBeNull(); // prettier-ignore
  });

  it('writes outlines and finds their middle', () => {
    expect(polygon([[1, 2], [3, 4]])).toBe('1,2 3,4'); // prettier-ignore
    expect(middle([[0, 0], [10, 0], [10, 10], [0, 10]])).toEqual([5, 5]); // prettier-ignore
  });
});
