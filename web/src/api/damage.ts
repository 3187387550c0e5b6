import type { Catalogue, Found, Spots } from './client';
import { newFaceId } from './face-id';

type Damage = Catalogue['damages'][number];

/** What a word for damage becomes in a job where it covers a face: the kind that the model knows, with a first guess of its depth. */
export function foundAs(damage: Damage): Found {
  return {
    kind: damage.kind as Found['kind'],
    depth_um: { likely: damage.likely_um, worst: damage.worst_um },
    as_wanted: false,
    called: damage.id,
  };
}

/** What it becomes where it lies in places: one of a usual size. */
export function spotsAs(damage: Damage, name: string): Spots {
  return {
    id: newFaceId(),
    name,
    kind: damage.kind as Spots['kind'],
    count: 1,
    length_mm: damage.length_mm ?? 10,
    width_mm: damage.width_mm ?? 10,
    depth_um: { likely: damage.likely_um, worst: damage.worst_um },
    called: damage.id,
    drawn: false,
  };
}
