// @vitest-environment jsdom
import { beforeEach, describe, expect, it } from 'vitest';
import bench from './AtWork.svelte?raw';
import shell from '../../app/Shell.svelte?raw';
import { shownKey, taught } from '../../ui/taught.svelte';

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

  it('cannot take a key that means something already', () => {
    expect(taught.teach('next', 'g')).toContain('G has a meaning');
    expect(taught.teach('next', 'Enter')).toContain('Enter has a meaning');
    expect(taught.teach('pause', 'b')).toBeNull();
    expect(taught.teach('more', 'b')).toContain('Pause, go on');
    expect(taught.teach('pause', 'b')).toBeNull();
  });

  it('can have none of the keys that the bench binds', () => {
    const bound = [...`${bench}${shell}`.matchAll(/press: '([^'+$]+)'/g)].map((found) => found[1]!);
    expect(bound.length).toBeGreaterThan(12);
    for (const key of bound)
      expect([key, taught.teach('next', key === 'Space' ? ' ' : key)]).toEqual([key, expect.any(String)]);
  });

  it('writes keys for people', () => {
    expect([shownKey('b'), shownKey('F13')]).toEqual(['B', 'F13']);
  });
});
