/** A table as text for a spreadsheet or a letter: a line a row, its cells with tabs between them. */
export function tableText(table: HTMLTableElement): string {
  return [...table.rows]
    .map((row) => [...row.cells].map((one) => (one.innerText ?? one.textContent ?? '').replace(/\s+/g, ' ').trim()))
    .filter((cells) => cells.some(Boolean))
    .map((cells) => cells.join('\t'))
    .join('\n');
}
