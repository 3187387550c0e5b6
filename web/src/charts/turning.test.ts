import { describe, expect, it } from 'vitest';
import { layOutTurning } from './turning';

const buffer = { turns: 'anticlockwise', worker_deg: 180, touch_deg: [190, 250] as [number, number] };

describe('turning', () => {
  it('puts the worker on the left and the contact below left for a bench wheel', () => {
    const drawn = layOutTurning(buffer, 100);
    expect(drawn.worker.x).toBeLessThan(drawn.x - drawn.r);
    expect(drawn.worker.y).toBeCloseTo(drawn.y);
    const [, x, y] = /^M([\d.]+),([\d.]+)/.exec(drawn.touch) ?? [];
    expect(Number(x)).toBeLessThan(drawn.x);
    expect(Number(y)).toBeGreaterThan(drawn.y);
  });

  it('turns the near side downwards: the arrow over the top runs to the left', () => {
    const drawn = layOutTurning(buffer, 100);
    const [, from, to] = /^M([\d.]+),.* ([\d.]+),[\d.]+$/.exec(drawn.arrow) ?? [];
    expect(Number(to)).toBeLessThan(Number(from));
    const other = layOutTurning({ ...buffer, turns: 'clockwise' }, 100);
    const [, start, end] = /^M([\d.]+),.* ([\d.]+),[\d.]+$/.exec(other.arrow) ?? [];
    expect(Number(end)).toBeGreaterThan(Number(start));
  });

  it('draws a whole rim where everything may touch', () => {
    expect(layOutTurning({ ...buffer, touch_deg: [0, 360] }, 100).touch).toMatch(/ 0 1 0 /);
  });
});
