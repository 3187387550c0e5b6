import { expect, test } from 'vitest';
import { pointAt, ringArc } from './dial';

test('the ring starts at the top, runs clockwise and never closes', () => {
  expect(ringArc(100, 50, 0.25)).toBe('M100,50A50,50 0 0 1 150.00,100.00');
  expect(ringArc(100, 50, 0.75)).toBe('M100,50A50,50 0 1 1 50.00,100.00');
  expect(ringArc(100, 50, 7)).not.toContain('1 1 100.00,50.00');
});

test('angles run anticlockwise from three o clock', () => {
  expect(pointAt(100, 50, 90)).toMatchObject({ y: 50 });
  expect(pointAt(100, 50, 180).x).toBeCloseTo(50);
});
