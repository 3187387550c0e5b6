/** The code as it is typed and shown: two groups of four. */
export function grouped(typed: string): string {
  const plain = typed.toUpperCase().replace(/[^A-Z0-9]/g, '');
  return plain.length > 4 ? `${plain.slice(0, 4)}-${plain.slice(4, 8)}` : plain;
}

/** The code that a camera read from the main screen: after the #, which is sent to nobody. */
export function codeInAddress(hash: string): string {
  return grouped(/^#pair=([\w-]+)$/.exec(hash)?.[1] ?? '');
}
