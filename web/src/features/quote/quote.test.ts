import { expect, test } from 'vitest';
import { piecesIn } from './quote.svelte';

test.each([
  ['1, 11, 20', [1, 11, 20]],
  ['5;5 7', [5, 7]],
  ['0 -3 1.5 x 100001 2', [2]],
  ['', []],
])('numbers of pieces in "%s"', (text, numbers) => expect(piecesIn(text)).toEqual(numbers));
