/** A tool by what tells it from others, without what carries it: "Tripoli bar", "P240 cloth strip". */
export function shortLabel(label: string): string {
  return label.split(/,| (?:on|by|in|for) /)[0] ?? label;
}

/** A machine without its kinds of speed: "Two-spindle bench buffer". */
export function shortMachine(label: string): string {
  return label.split(',')[0] ?? label;
}
