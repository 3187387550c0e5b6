/** How wide two photos are drawn so that a millimetre is as long in one as in the other. Pure. */

interface Wide {
  across_mm: number | null;
}

export interface Scale {
  left: number;
  right: number;
  said: string;
}

/** `room`: the width in pixels that each may take without scrolling; the narrower view just fits, the wider scrolls. */
export function sameScale(left: Wide | null, right: Wide | null, room: number): Scale {
  if (left && right && left.across_mm && right.across_mm) {
    const perMm = room / Math.min(left.across_mm, right.across_mm);
    return { left: left.across_mm * perMm, right: right.across_mm * perMm, said: 'Both at the same scale.' };
  }
  const said = left && right ? 'Say how wide both are, and they are shown at the same scale.' : '';
  return { left: room, right: room, said };
}
