/** From the plan of a job to what its stairs show. */
import type { FacePlan, Plan } from '../../api/client';
import { spanOf, type Span, type StairStep } from '../../charts/stair';

export function stairSteps(plan: FacePlan | undefined): StairStep[] {
  return (plan?.steps ?? []).map((step) => ({
    label: step.label,
    grainUm: step.grain_um,
    minutes: step.minutes,
    fromUm: step.from_um,
    likelyUm: step.likely_um,
    leavesUm: step.leaves_um,
    staysUm: step.stays_um,
    zone: step.zone?.spots.join(', ') ?? null,
    curve: step.curve,
  }));
}

/** One scale of depths on which every face of the part can be shown; none where nothing is worked. */
export function sharedSpan(faces: FacePlan[]): Span | undefined {
  const spans = faces
    .filter((face) => face.steps.length)
    .map((face) => spanOf(stairSteps(face), { wantedUm: face.wanted_depth_um, restUm: face.rest_um }));
  if (!spans.length) return undefined;
  return {
    highest: Math.max(...spans.map((span) => span.highest)),
    lowest: Math.min(...spans.map((span) => span.lowest)),
  };
}

/** The faces that are worked on or say why not, as their work begins; what is masked is not among them. */
export function inOrderOfWork(plan: Plan): FacePlan[] {
  const begun = [...new Set(plan.set_ups.flatMap((setUp) => setUp.steps.map((step) => step.face_id)))];
  const place = (face: FacePlan) => (begun.includes(face.id) ? begun.indexOf(face.id) : begun.length);
  return plan.faces.filter((face) => !face.keep_off).sort((a, b) => place(a) - place(b));
}

/** The place of every step of a face in the order of work: steps that share a set-up have the same number, from 1. */
export function setUpNumbers(plan: Plan, face: string): number[] {
  const numbers: number[] = [];
  plan.set_ups.forEach((setUp, at) => {
    for (const step of setUp.steps) if (step.face_id === face) numbers[step.step - 1] = at + 1;
  });
  return numbers;
}
