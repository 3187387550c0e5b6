import { describe, expect, it } from 'vitest';
import { livePicture } from './live';

const BY = { black: 2, white: 253, gamma: 2.2 };

/** A picture of 8 x 8 whose grey a function tells. */
function picture(grey: (x: number, y: number) => number): Uint8ClampedArray {
  const data = new Uint8ClampedArray(8 * 8 * 4);
  for (let at = 0; at < 64; at++) data.set(Array(3).fill(grey(at % 8, Math.floor(at / 8))), 4 * at);
  return data;
}

describe('the live picture', () => {
  it('is finest where neighbours differ most, whatever the light is', () => {
    const sharp = livePicture(
      picture((x) => (x % 2 ? 60 : 120)),
      8,
      BY,
    );
    const soft = livePicture(
      picture((x) => 60 + 8 * x),
      8,
      BY,
    );
    const darker = livePicture(
      picture((x) => (x % 2 ? 30 : 60)),
      8,
      BY,
    );
    expect(sharp.fine).toBeGreaterThan(3 * soft.fine);
    expect(darker.fine).toBeCloseTo(sharp.fine, 5);
  });
  it('counts what is black or white', () => {
    expect(
      livePicture(
        picture((x, y) => (y === 0 ? 255 : y === 1 ? 0 : 128)),
        8,
        BY,
      ).lost,
    ).toBe(0.25);
  });
  it('tells the darkest places against the middle in linear light', () => {
    const flat = livePicture(
      picture(() => 100),
      8,
      BY,
    );
    const deep = livePicture(
      picture((_, y) => (y === 0 ? 50 : 100)),
      8,
      BY,
    );
    expect(flat.floor).toBeCloseTo(1, 5);
    expect(deep.floor).toBeCloseTo(0.5 ** 2.2, 2);
    expect(
      livePicture(
        picture(() => 0),
        8,
        BY,
      ).floor,
    ).toBe(0);
  });
});
