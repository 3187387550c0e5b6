// @vitest-environment jsdom
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { api, Problem, type Job, type KeptJob, type Plan } from '../../api/client';
import { JobDraft } from './draft.svelte';

const face = (name: string, more = {}) => ({
  id: name,
  name,
  found: {},
  want: {},
  area_cm2: 10,
  reach: 'open',
  keep_off: false,
  stays_flat: false,
  blind: false,
  ...more,
});
const job = (...faces: object[]) => ({ title: 'Collar', aim: 'time', faces, diameters_mm: {} }) as unknown as Job;
const kept = (given: Job) => ({ id: 7, revision: 1, job: given }) as KeptJob;
const planOf = (...steps: string[]) => ({ faces: [{ steps: steps.map((tool) => ({ tool })) }] }) as unknown as Plan;

let drafts: JobDraft[] = [];
const opened = (given: Job) => {
  const draft = new JobDraft(kept(given));
  drafts.push(draft);
  return draft;
};
const plan = vi.spyOn(api, 'plan');
const settled = () => vi.advanceTimersByTimeAsync(1000);

beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
  plan.mockReset().mockResolvedValue(planOf('paper-p240', 'felt-white'));
  vi.spyOn(api, 'choices').mockRejectedValue(new Problem(422, 'no'));
  vi.spyOn(api, 'change').mockImplementation((_, given) => Promise.resolve(kept(given)));
});
afterEach(() => {
  for (const draft of drafts) draft.leave();
  drafts = [];
  vi.useRealTimers();
});

test('one plan is on its way at a time, and the next is of the newest values', async () => {
  const draft = opened(job(face('barrel')));
  let answer: (told: Plan) => void = () => undefined;
  plan.mockImplementationOnce(() => new Promise((told) => (answer = told)));
  await settled();
  draft.changeFace({ thickness_mm: 1 });
  draft.changeFace({ thickness_mm: 2 });
  draft.changeFace({ thickness_mm: 3 });
  expect(plan).toHaveBeenCalledTimes(2);
  answer(planOf('paper-p240'));
  await settled();
  expect(plan).toHaveBeenCalledTimes(3);
  expect(plan.mock.lastCall?.[0].faces[0]?.thickness_mm).toBe(3);
});

test('a plan that is slow is shown as old, and a wrong value keeps the last plan', async () => {
  const draft = opened(job(face('barrel')));
  await settled();
  let answer: (told: Plan) => void = () => undefined;
  plan.mockImplementationOnce(() => new Promise((told) => (answer = told)));
  draft.changeFace({ thickness_mm: 1 });
  await vi.advanceTimersByTimeAsync(200);
  expect(draft.stale).toBe(true);
  answer(planOf('paper-p240'));
  await settled();
  expect(draft.stale).toBe(false);
  plan.mockRejectedValueOnce(new Problem(422, 'Wall: must be above 0', []));
  draft.changeFace({ thickness_mm: 0 });
  await settled();
  expect([draft.trouble, draft.plan]).toEqual(['Wall: must be above 0', planOf('paper-p240')]);
});

test('while nobody answers it is asked again by itself', async () => {
  plan.mockRejectedValueOnce(new Problem(0, 'away'));
  const draft = opened(job(face('barrel')));
  await vi.advanceTimersByTimeAsync(500);
  expect([draft.silent, draft.stale]).toEqual([true, true]);
  await vi.advanceTimersByTimeAsync(2500);
  expect([draft.silent, draft.stale, draft.plan !== null]).toEqual([false, false, true]);
});

test('edges follow a face that is renamed or removed, and the last face stays', async () => {
  const edge = face('rim', { edge: { length_mm: 10, wanted: 'break', next_to: ['barrel'] } });
  const draft = opened(job(face('barrel'), face('flange'), edge));
  draft.changeFace({ name: 'outer barrel' });
  expect(draft.job.faces[2]?.edge?.next_to).toEqual(['barrel']);
  draft.removeFace(0);
  expect(draft.job.faces.map((one) => one.name)).toEqual(['flange', 'rim']);
  expect(draft.job.faces[1]?.edge?.next_to).toEqual([]);
  draft.removeFace(0);
  expect(draft.job.faces).toHaveLength(2);
});

test('a new face is a copy with a name of its own, in hand, and can be taken back', async () => {
  const draft = opened(job(face('face 2', { keep_off: true })));
  draft.addFace();
  expect(draft.job.faces.map((one) => [one.name, one.keep_off])).toEqual([
    ['face 2', true],
    ['face 3', false],
  ]);
  expect([draft.faceAt, draft.justAdded]).toEqual([1, true]);
  draft.undo();
  expect([draft.job.faces.length, draft.faceAt, draft.canRedo]).toEqual([1, 0, true]);
  draft.redo();
  expect(draft.job.faces).toHaveLength(2);
});

test('a step is left out of the route, but never the only one; a lock goes on and off', async () => {
  const draft = opened(job(face('barrel')));
  await settled();
  draft.walk(5);
  expect(draft.stepAt).toBe(1);
  draft.toggleLock();
  expect(draft.locked('felt-white')).toBe(true);
  draft.toggleLock();
  expect(draft.wish).toBeUndefined();
  draft.leaveOut();
  expect(draft.wish?.route).toEqual(['paper-p240']);
  plan.mockResolvedValue(planOf('paper-p240'));
  draft.setWish(undefined);
  await settled();
  expect(draft.stepAt).toBe(0);
  draft.leaveOut();
  expect(draft.wish).toBeUndefined();
});

test('a wheel that is as new again is not written down', () => {
  const draft = opened(job(face('barrel')));
  draft.wearDown('felt-white', 120, 150);
  expect(draft.job.diameters_mm).toEqual({ 'felt-white': 120 });
  draft.wearDown('felt-white', 150, 150);
  expect(draft.job.diameters_mm).toEqual({});
});
