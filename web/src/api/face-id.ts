/** An id that no face has yet: made here, so that a new face is known by it before the server has heard of it. */
export const newFaceId = (): string =>
  `face-${Array.from(crypto.getRandomValues(new Uint8Array(6)), (byte) => byte.toString(16).padStart(2, '0')).join('')}`;
