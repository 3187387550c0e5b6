import { describe, expect, it } from 'vitest';
import { History } from './history';

describe('history', () => {
  it('goes back and forth', () => {
    const history = new History<number>(800);
    history.record(1, 0);
    history.record(2, 1000);
    expect(history.undo(3)).toBe(2);
    expect(history.undo(2)).toBe(1);
    expect(history.undo(1)).toBeUndefined();
    expect(history.redo(1)).toBe(2);
    expect(history.redo(2)).toBe(3);
    expect(history.canRedo).toBe(false);
  });

  it('takes quick changes as one', () => {
    const history = new History<string>(800);
    history.record('', 0);
    history.record('1', 100);
    history.record('12', 300);
    expect(history.undo('120')).toBe('');
    expect(history.canUndo).toBe(false);
  });

  it('forgets what was undone once something else is changed', () => {
    const history = new History<number>(800);
    history.record(1, 0);
    history.undo(2);
    history.record(1, 50); // close in time to the first, yet a change of its own after the undo
    expect(history.canRedo).toBe(false);
    expect(history.undo(5)).toBe(1);
  });

  it('keeps only so much', () => {
    const history = new History<number>(0, 3);
    for (let n = 0; n < 9; n++) history.record(n, n);
    expect([history.undo(9), history.undo(8), history.undo(7), history.undo(6)]).toEqual([8, 7, 6, undefined]);
  });
});
