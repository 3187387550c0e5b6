/** How the work is moved, by the lay that a step leaves. */
export const LAYS = {
  across: 'Work across the marks before: what is left of them shows.',
  along: 'One direction only, long even passes; never turn the part round.',
  none: 'Keep it moving every way, without direction.',
} as const;
