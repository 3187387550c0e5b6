import { expect, it } from 'vitest';
import { rangeOf, withLikely, withWorst } from './depth';

it('takes the worst along when the likely passes it, and the other way round', () => {
  expect(withLikely({ likely: 20, worst: 30 }, 50)).toEqual({ likely: 50, worst: 50 });
  expect(withLikely({ likely: 20, worst: 30 }, 25)).toEqual({ likely: 25, worst: 30 });
  expect(withWorst({ likely: 20, worst: 30 }, 10)).toEqual({ likely: 10, worst: 10 });
  expect(withWorst(20, 40)).toEqual({ likely: 20, worst: 40 });
});

it('knows nothing of what nothing is said of', () => {
  expect(rangeOf(null)).toBeUndefined();
  expect(withLikely(undefined, 8)).toEqual({ likely: 8, worst: 8 });
});
