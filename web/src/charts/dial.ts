/** The clock of the bench: a ring that fills, around the wheel. Pure geometry. */

/** An arc from the top, clockwise, over a share (0 to 1) of the circle; never quite closed, so that it can be drawn. */
export function ringArc(centre: number, radius: number, share: number): string {
  const angle = 2 * Math.PI * Math.min(Math.max(share, 0), 0.9999);
  const x = centre + radius * Math.sin(angle);
  const y = centre - radius * Math.cos(angle);
  return `M${centre},${centre - radius}A${radius},${radius} 0 ${angle > Math.PI ? 1 : 0} 1 ${x.toFixed(2)},${y.toFixed(2)}`;
}

/** The point at an angle (degrees anticlockwise from three o'clock; the screen's y runs down). */
export function pointAt(centre: number, radius: number, degrees: number): { x: number; y: number } {
  const angle = (degrees * Math.PI) / 180;
  return { x: centre + radius * Math.cos(angle), y: centre - radius * Math.sin(angle) };
}
