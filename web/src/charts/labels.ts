/** A tool by what tells it from others, without what carries it: "Tripoli bar", "P240 cloth strip". */
export function shortLabel(label: string): string {
  return label.split(/,| (?:on|by|in|for) /)[0] ?? label;
}
