import { describe, expect, it } from 'vitest';
import { AskedEye, type AskEye, type EyeTold } from './asked.svelte';

const PHOTO = new Blob(['photo']);
const SEEN: EyeTold = { verdict: 'seen', said: [], lines: [] };

function asking(change: Partial<AskEye> = {}) {
  const asked: unknown[] = [];
  const eye = new AskedEye({
    shows: async () => ({ enough: true, said: [], black: 2, white: 253, gamma: 2.2 }),
    lay: async () => ({ lay_deg: 160.4, crossing_deg: 70, said: [] }),
    look: async (across, along, stated, told) => {
      asked.push(stated);
      told(0.5);
      return SEEN;
    },
    ...change,
  });
  return { eye, asked };
}

describe('the eye that is asked', () => {
  it('goes from the lamp across over the lay to the lamp along and the answer', async () => {
    const { eye, asked } = asking();
    expect(eye.now).toBe('across');
    await eye.take(PHOTO);
    expect([eye.now, eye.lay]).toEqual(['lay', -20]); // a line has no head
    eye.confirm();
    expect(eye.now).toBe('along');
    await eye.take(PHOTO);
    expect([eye.now, eye.answer?.verdict, eye.share]).toEqual(['answer', 'seen', null]);
    expect(asked).toEqual([{ across_mm: 35, lay_deg: -20, crossing_deg: 70 }]);
    eye.onceMore();
    expect([eye.now, eye.lay]).toEqual(['along', -20]);
    eye.again();
    expect([eye.now, eye.lay]).toEqual(['across', null]);
  });
  it('does not go on without a lay', async () => {
    const { eye } = asking({ lay: async () => ({ lay_deg: null, crossing_deg: 70, said: [] }) });
    await eye.take(PHOTO);
    eye.confirm();
    expect([eye.now, eye.found?.lay_deg]).toEqual(['lay', null]);
  });
  it('says what went wrong, and forgets an answer that comes after a new beginning', async () => {
    const { eye } = asking({ lay: () => Promise.reject(new Error('no network')) });
    await eye.take(PHOTO);
    expect([eye.trouble, eye.share]).toEqual(['no network', null]);
    let answer: (told: EyeTold) => void = () => undefined;
    const late = asking({ look: () => new Promise((resolve) => (answer = resolve)) }).eye;
    await late.take(PHOTO);
    late.confirm();
    const looking = late.take(PHOTO);
    late.again();
    answer(SEEN);
    await looking;
    expect([late.now, late.answer]).toEqual(['across', null]);
  });
});
