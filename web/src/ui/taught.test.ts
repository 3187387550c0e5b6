// @vitest-environment jsdom
import { beforeEach, describe, expect, it } from 'vitest';
import { shownKey, taught } from './taught.svelte';

describe('a foot switch', () => {
  beforeEach(() => {
    for (const one of ['next', 'pause', 'more'] as const) taught.forget(one);
  });

  it('is taught a meaning, which stays in this browser', () => {
    expect(taught.teach('next', 'PageDown')).toBeNull();
    expect(JSON.parse(localStorage.getItem('kelbrast.taught') ?? '')).toEqual({ next: 'PageDown' });
    taught.forget('next');
    expect(taught.keys).toEqual({});
  });

  it('can not take a key that means something already', () => {
    expect(taught.teach('next', 'g')).toContain('G has a meaning');
    expect(taught.teach('next', 'Enter')).toContain('Enter has a meaning');
    expect(taught.teach('pause', 'b')).toBeNull();
    expect(taught.teach('more', 'b')).toContain('Pause, go on');
    expect(taught.teach('pause', 'b')).toBeNull();
  });

  it('writes keys for people', () => {
    expect([shownKey('b'), shownKey('F13')]).toEqual(['B', 'F13']);
  });
});
