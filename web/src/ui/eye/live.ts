/** What the live picture tells before a photo is taken: figures to watch while the phone and the lamp are moved. */

export interface LivePicture {
  /** How much neighbouring pixels differ, against the mean: it is highest where the picture is sharpest. */
  fine: number;
  /** Share of pixels that are black or white, and have lost their tone. */
  lost: number;
  /** How bright the darkest twentieth is, in linear light, as a share of the middle: other light in the room raises it. */
  floor: number;
}

/** Where a pixel has lost its tone, of 255, and how grey in a file becomes light: as the server measures photos. */
export interface LiveRule {
  black: number;
  white: number;
  gamma: number;
}

/** Figures of a picture as a canvas gives it: red, green, blue and cover of every pixel, row by row. */
export function livePicture(data: Uint8ClampedArray, width: number, by: LiveRule): LivePicture {
  const count = Math.floor(data.length / 4);
  const grey = new Float32Array(count);
  for (let at = 0; at < count; at++) {
    grey[at] = 0.299 * (data[4 * at] ?? 0) + 0.587 * (data[4 * at + 1] ?? 0) + 0.114 * (data[4 * at + 2] ?? 0);
  }
  let lost = 0;
  let total = 0;
  let steps = 0;
  for (let at = 0; at < count; at++) {
    const here = grey[at] ?? 0;
    total += here;
    if (here <= by.black || here >= by.white) lost++;
    if ((at + 1) % width !== 0) steps += Math.abs((grey[at + 1] ?? here) - here);
    if (at + width < count) steps += Math.abs((grey[at + width] ?? here) - here);
  }
  const sorted = grey.slice().sort();
  const light = (share: number) => ((sorted[Math.floor(share * (count - 1))] ?? 0) / 255) ** by.gamma;
  return {
    fine: total ? steps / (2 * total) : 0,
    lost: count ? lost / count : 0,
    floor: light(0.5) ? light(0.05) / light(0.5) : 0,
  };
}
