import type { Catalogue, Found } from './client';

/** What a word for damage becomes in a job: the kind that the model knows, with a first guess of its depth. */
export function foundAs(damage: Catalogue['damages'][number]): Found {
  return {
    kind: damage.kind as Found['kind'],
    depth_um: { likely: damage.likely_um, worst: damage.worst_um },
    count: 1,
    called: damage.id,
    ...(damage.share === null ? {} : { share: damage.share }),
  };
}
