// @vitest-environment jsdom
import { describe, expect, it } from 'vitest';
import { tableText } from './table-text';

describe('a table as text', () => {
  it('has a line a row and tabs between cells, without rows that say nothing', () => {
    document.body.innerHTML = `<table><thead><tr><th>Pieces</th><th>Price</th></tr></thead>
      <tbody><tr><td>1</td><td> 38.97
        EUR </td></tr><tr><td></td><td></td></tr></tbody></table>`;
    expect(tableText(document.querySelector('table')!)).toBe('Pieces\tPrice\n1\t38.97 EUR');
  });
});
