import { expect, it } from 'vitest';
import { codeInAddress, grouped } from './code';

it('groups what is typed, whatever else is typed with it', () => {
  expect(grouped('k7qf3mzp')).toBe('K7QF-3MZP');
  expect(grouped('K7QF-')).toBe('K7QF');
  expect(grouped(' k7 qf 3m zp9999')).toBe('K7QF-3MZP');
  expect(grouped('')).toBe('');
});

it('reads a code after the # only', () => {
  expect(codeInAddress('#pair=K7QF-3MZP')).toBe('K7QF-3MZP');
  expect(codeInAddress('#view')).toBe('');
  expect(codeInAddress('#pair=')).toBe('');
  expect(codeInAddress('#pair=<script>')).toBe('');
});
