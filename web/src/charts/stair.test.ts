import { describe, expect, it } from 'vitest';
import { fitted, layOutStair, niceDepths, stepAt, type StairStep } from './stair';
import { temper } from './temper';

const step = (over: Partial<StairStep>): StairStep => ({
  label: 'P180 flap wheel',
  grainUm: 82,
  minutes: 10,
  fromUm: 20,
  likelyUm: 20,
  leavesUm: 4,
  staysUm: 0,
  curve: [
    [0, 20],
    [5, 4],
    [10, 4],
  ],
  ...over,
});

describe('the stair', () => {
  const steps = [
    step({}),
    step({
      label: 'White bar, felt wheel',
      grainUm: 4,
      minutes: 30,
      fromUm: 4,
      likelyUm: 4,
      leavesUm: 0.1,
      staysUm: 0,
      curve: [
        [0, 4],
        [30, 0.1],
      ],
    }),
  ];
  const stair = layOutStair(steps, 800, 400, { wantedUm: 0.2 });

  it('gives each step its share of the minutes', () => {
    const [first, second] = stair.treads;
    expect((second!.x1 - second!.x0) / (first!.x1 - first!.x0)).toBeCloseTo(3);
    expect(second!.x1).toBeCloseTo(stair.right);
  });

  it('goes down as the marks get finer, and every check stands on its tread', () => {
    const [first, second] = stair.treads;
    expect(second!.checkY).toBeGreaterThan(first!.checkY);
    expect(first!.checkX).toBeCloseTo(second!.x0);
    expect(first!.path.startsWith('M')).toBe(true);
  });

  it('keeps a decade the same height anywhere', () => {
    const at = (value: number) => stair.depthTicks.find((tick) => tick.value === value)!.y;
    expect(at(1) - at(10)).toBeCloseTo(at(0.1) - at(1));
  });

  it('puts the wanted band where its depth is', () => {
    expect(stair.wantedY!).toBeGreaterThan(stair.treads[0]!.checkY);
    expect(stair.wantedY!).toBeLessThan(stair.treads[1]!.checkY);
    expect(layOutStair(steps, 800, 400, { wantedUm: null }).wantedY).toBeNull();
  });

  it('ends the band below where a face would be too fine', () => {
    const banded = layOutStair(steps, 800, 400, { wantedUm: 3, wantedLowUm: 0.5 });
    expect(banded.wantedBottom).toBeGreaterThan(banded.wantedY!);
    expect(banded.wantedBottom).toBeLessThan(banded.bottom);
    expect(stair.wantedBottom).toBe(stair.bottom);
  });

  it('marks the likely depth only where it is less than the worst', () => {
    expect(stair.likely).toBeNull();
    const guessed = layOutStair([step({ likelyUm: 14 })], 800, 400, { wantedUm: 0.2 });
    expect(guessed.likely!.y0).toBeLessThan(guessed.likely!.y1);
  });

  it('finds the step under the pointer', () => {
    expect(stepAt(stair, stair.treads[1]!.x0 + 1)).toBe(1);
    expect(stepAt(stair, 0)).toBeNull();
  });

  it('lets a label run over the next step until another stands at its height, and moves discs aside', () => {
    const [first, second] = stair.treads;
    expect(first!.label).toBe('P180 flap wheel');
    expect(second!.discY - first!.discY).toBeGreaterThan(22);
    const short = layOutStair(
      [...Array(4).keys()].map(() => step({ minutes: 0.1 })).concat(step({ minutes: 60 })),
      800,
      400,
      { wantedUm: 0.2 },
    );
    const discs = short.treads.map((tread) => tread.discX);
    for (const [at, x] of discs.entries()) if (at) expect(x - discs[at - 1]!).toBeGreaterThanOrEqual(22);
    expect(short.treads.map((tread) => tread.label)).toEqual(['', '', '', '', 'P180 flap wheel']);
  });

  it('stays finite without steps', () => {
    const empty = layOutStair([], 300, 200, { wantedUm: 0.2 });
    expect(empty.treads).toEqual([]);
    expect(empty.depthTicks.every((tick) => Number.isFinite(tick.y))).toBe(true);
  });
});

describe('labels and ticks', () => {
  it('shortens a label before it drops it', () => {
    expect(fitted('White bar, felt wheel', 300)).toBe('White bar, felt wheel');
    expect(fitted('White bar, felt wheel', 100)).toBe('White bar');
    expect(fitted('White bar, felt wheel', 20)).toBe('');
    expect(fitted('P240 cloth strip', 50)).toBe('P240');
    expect(fitted('15 µm flat lap', 50)).toBe('15 µm');
  });

  it('ticks every decade', () => {
    expect(niceDepths(0.05, 20, 400)).toContain(1);
    expect(niceDepths(0.9, 6, 400)).toEqual([1, 2, 5]);
    expect(niceDepths(0.05, 20, 100)).toEqual([0.1, 0.3, 1, 3, 10]); // letters would touch with more
    expect(niceDepths(0.05, 20, 60)).toEqual([0.1, 1, 10]);
  });

  it('runs the temper ramp from coarse to fine', () => {
    const ramp = [500, 125, 50, 20, 10, 3, 0.5].map(temper);
    expect(ramp).toEqual([0, 1, 2, 3, 4, 5, 6]);
  });

  it('shows the rest of the face waiting, where the places join it, and a long pass narrower', () => {
    const places = step({ zone: 'gouges', minutes: 5, fromUm: 80, leavesUm: 7 });
    const pass = step({ minutes: 60, fromUm: 12, leavesUm: 3 });
    const zoned = layOutStair([places, pass], 800, 400, { wantedUm: 4, restUm: 12 });
    const [first, second] = zoned.treads;
    expect(zoned.rest).toMatchObject({ x: first!.x1, um: 12 });
    expect(zoned.narrower).toBe(8);
    expect((second!.x1 - second!.x0) / (first!.x1 - first!.x0)).toBeCloseTo(60 / 8 / 5);
    expect(second!.x1).toBeCloseTo(zoned.right);
    expect(second!.label).toBe('P180 flap wheel, over everything');
    expect(layOutStair([pass], 800, 400, { wantedUm: 4, restUm: 12 })).toMatchObject({ rest: null, narrower: 1 });
  });
});
