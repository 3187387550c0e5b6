/** The temper ramp: coarse to fine in the colours steel takes when it is heated. One scale everywhere. */

/** Grain sizes (µm) at which the next colour begins, coarse to fine: about P80, P180, P400, P1000, 6 and 1.5 µm. */
const STEPS = [180, 80, 35, 18, 6, 1.5];

/** Index 0 (coarsest) to 6 (finest) of a grain size in µm. */
export function temper(grainUm: number): number {
  const at = STEPS.findIndex((step) => grainUm > step);
  return at === -1 ? STEPS.length : at;
}

export function temperColour(grainUm: number): string {
  return `var(--t${temper(grainUm)})`;
}
