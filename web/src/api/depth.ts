/** A depth as a job has it: one figure, or a guess with its worst case, µm. */
type Depth = number | { likely: number; worst: number };

/** Both figures of it; undefined where nothing is said. */
export function rangeOf(depth: Depth): { likely: number; worst: number };
export function rangeOf(depth: Depth | null | undefined): { likely: number; worst: number } | undefined;
export function rangeOf(depth: Depth | null | undefined) {
  return typeof depth === 'number' ? { likely: depth, worst: depth } : (depth ?? undefined);
}

/** The worst cannot be less than the likely, so moving one past the other takes it along. */
export function withLikely(depth: Depth | null | undefined, likely: number) {
  return { likely, worst: Math.max(likely, rangeOf(depth)?.worst ?? likely) };
}

export function withWorst(depth: Depth | null | undefined, worst: number) {
  return { likely: Math.min(worst, rangeOf(depth)?.likely ?? worst), worst };
}
