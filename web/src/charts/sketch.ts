/** Spots on a face as they are described. */
export interface SpotsDrawn {
  id?: string;
  name: string;
  count?: number;
  length_mm?: number | null;
  width_mm?: number | null;
  area_cm2?: number | null;
  /** As drawn on a photo. */
  drawn?: boolean;
}

/** What of a face is drawn. */
export interface FaceDrawn {
  spots?: readonly SpotsDrawn[];
  shape?: { kind: string; length_mm?: number | null; width_mm?: number | null; diameter_mm?: number | null } | null;
}

/** What of a step is drawn: how far it works around which spots. */
export interface StepDrawn {
  grain_um: number;
  zone?: { ids: string[]; spots: string[]; margins_mm: number[] } | null;
}

/** The side in mm of a square of so many cm². */
export function sideOf(cm2: number): number {
  return Number(Math.sqrt(cm2 * 100).toPrecision(3));
}

/** A place that is worked, in mm: where its middle is, how large it is and how far around it is worked. */
export interface Place {
  key: string;
  x: number;
  y: number;
  length: number;
  width: number;
}

/**
 * Places for a drawing to scale where nobody said where they lie: spread evenly over the face, the long ones along it.
 * What a face has on a photo lies where it was drawn.
 */
export function spread(spots: readonly SpotsDrawn[], length: number, width: number): Place[] {
  const each = spots.flatMap((one) =>
    Array.from({ length: Math.min(one.count ?? 1, 60) }, () => ({
      key: one.id ?? one.name,
      length: one.length_mm ?? sideOf(one.area_cm2 ?? 1),
      width: one.width_mm ?? sideOf(one.area_cm2 ?? 1),
    })),
  );
  if (!each.length) return [];
  const columns = Math.max(1, Math.round(Math.sqrt((each.length * length) / width)));
  const rows = Math.ceil(each.length / columns);
  return each.map((one, at) => {
    const row = Math.floor(at / columns);
    const inRow = Math.min(columns, each.length - row * columns);
    return { ...one, x: (length * ((at % columns) + 0.5)) / inRow, y: (width * (row + 0.5)) / rows };
  });
}

/** Length and width in mm of a face for a drawing: as its shape says, or a square of its area. */
export function sidesOf(face: FaceDrawn, areaCm2: number): [number, number] {
  const { shape } = face;
  if (shape?.kind === 'plate' && shape.length_mm && shape.width_mm) {
    return [Math.max(shape.length_mm, shape.width_mm), Math.min(shape.length_mm, shape.width_mm)];
  }
  if (shape?.length_mm && shape.diameter_mm) {
    const around = (areaCm2 * 100) / shape.length_mm; // unrolled
    return [Math.max(shape.length_mm, around), Math.min(shape.length_mm, around)];
  }
  const side = Math.sqrt(areaCm2 * 100);
  return [side, side];
}

/** A round length of about a seventh of the face, for a bar of scale, mm. */
export function barOf(length: number): number {
  const about = length / 7;
  const power = 10 ** Math.floor(Math.log10(about));
  return [5, 2, 1].map((lead) => lead * power).find((one) => one <= about) ?? power;
}
