import { expect, it } from 'vitest';
import type { FacePlan, Plan } from '../../api/client';
import { inOrderOfWork, setUpNumbers, sharedSpan } from './stairs';

const SET_UPS = [
  [['flange', 1]],
  [
    ['barrel', 1],
    ['flange', 2],
  ],
  [['flange', 3]],
  [['barrel', 2]],
] as const;
const plan = {
  faces: ['barrel', 'well', 'flange', 'bore'].map((id) => ({ id, keep_off: id === 'bore' })),
  set_ups: SET_UPS.map((steps) => ({ steps: steps.map(([face_id, step]) => ({ face: '', face_id, step })) })),
} as unknown as Plan;

it('numbers steps by the order of work, and steps that share a set-up alike', () => {
  expect(setUpNumbers(plan, 'barrel')).toEqual([2, 4]);
  expect(setUpNumbers(plan, 'flange')).toEqual([1, 2, 3]);
  expect(setUpNumbers(plan, 'elsewhere')).toEqual([]);
});

it('shows faces as their work begins, then those without any, and none that is masked', () => {
  expect(inOrderOfWork(plan).map((face) => face.id)).toEqual(['flange', 'barrel', 'well']);
});

it('shows all faces on one scale, from the deepest marks to the finest wanted', () => {
  const face = (from_um: number, wanted_depth_um: number) =>
    ({ wanted_depth_um, rest_um: null, steps: [{ from_um, leaves_um: 1, curve: [] }] }) as unknown as FacePlan;
  const masked = { steps: [] } as unknown as FacePlan;
  expect(sharedSpan([face(200, 0.5), face(20, 0.1), masked])).toEqual({ highest: 250, lowest: 0.05 });
  expect(sharedSpan([masked])).toBeUndefined();
});
