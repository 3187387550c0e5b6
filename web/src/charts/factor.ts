/** Where a factor stands on a scale from a quarter (0) over one (50) to four times (100), in percent. */
export const placeOfFactor = (factor: number) => Math.min(100, Math.max(0, 50 + (Math.log2(factor) / 4) * 100));
