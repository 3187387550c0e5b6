import { expect, test } from 'vitest';
import { sameScale } from './same-scale';

test('a millimetre is as long in one as in the other', () => {
  const scale = sameScale({ across_mm: 20 }, { across_mm: 50 }, 300);
  expect(scale.left / 20).toBeCloseTo(scale.right / 50);
  expect(Math.min(scale.left, scale.right)).toBe(300);
  expect(scale.said).toContain('same scale');
});

test('without both widths nothing is claimed', () => {
  expect(sameScale({ across_mm: 20 }, { across_mm: null }, 300).said).toContain('Say how wide');
  expect(sameScale({ across_mm: 20 }, null, 300).said).toBe('');
});
