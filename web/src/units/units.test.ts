import { describe, expect, it } from 'vitest';
import {
  clock,
  settable,
  converted,
  duration,
  figures,
  fromShown,
  parseNumber,
  toShown,
  typed,
  unitLabel,
  whole,
  type Quantity,
} from './units';

describe('units', () => {
  it('shows inch sizes', () => {
    expect(toShown(25.4, 'depth', 'inch')).toBeCloseTo(1); // one thou is 25.4 µm
    expect(toShown(6.4516, 'area', 'inch')).toBeCloseTo(1);
    expect(toShown(19.1511, 'speed', 'inch')).toBeCloseTo(3769.9, 0); // 8 in wheel at 1800 rev/min
    expect(toShown(100, 'temperature', 'inch')).toBe(212);
    expect(unitLabel('depth', 'inch')).toBe('thou');
  });

  it('comes back to what was typed', () => {
    for (const quantity of ['depth', 'roughness', 'length', 'area', 'speed', 'force', 'temperature'] as Quantity[])
      expect(fromShown(toShown(12.5, quantity, 'inch'), quantity, 'inch')).toBeCloseTo(12.5);
  });

  it('rounds to significant figures without an exponent', () => {
    expect(figures(0.0337)).toBe('0.034');
    expect(figures(1234)).toBe('1\u202f200');
    expect(figures(2.0)).toBe('2');
    expect(figures(99.6)).toBe('100');
    expect(figures(0)).toBe('0');
    expect(figures(Infinity)).toBe('–');
    expect(whole(12220)).toBe('12\u202f220');
  });

  it('reads numbers with comma or point and refuses the rest', () => {
    expect(parseNumber(' 1,5 ')).toBe(1.5);
    expect(parseNumber('1.')).toBe(1);
    expect(parseNumber('.5')).toBe(0.5);
    for (const text of ['', '-', '1,2,3', 'abc', '1 µm']) expect(parseNumber(text)).toBeNull();
  });

  it('keeps every figure of a typed value', () => {
    expect(typed(25.8, 'depth', 'metric')).toBe('25.8');
    expect(typed(25.4, 'depth', 'inch')).toBe('1');
  });

  it('puts what the server says into the units shown', () => {
    const said = 'Taking the damage out removes 25.4 µm; only 12.7 µm may come off.';
    expect(converted(said, 'inch')).toBe('Taking the damage out removes 1 thou; only 0.5 thou may come off.');
    expect(converted('Ra at most 0.4 µm, as a drawing asks.', 'inch')).toBe('Ra at most 15.7 µin, as a drawing asks.');
    expect(converted('an inside radius of 2 mm', 'inch')).toBe('an inside radius of 0.0787 in');
    expect(converted(said, 'metric')).toBe(said);
  });

  it('says durations as people do', () => {
    expect(duration(0.5)).toBe('30 s');
    expect(duration(6.54)).toBe('6.5 min');
    expect(duration(38.2)).toBe('38 min');
    expect(duration(141)).toBe('2 h 20');
    expect(duration(120)).toBe('2 h');
  });
});

it('a speed to set has three figures and is never above the plan', () => {
  expect([16552, 2850, 999.9, 0].map(settable)).toEqual([16500, 2850, 999, 0]);
});

it('writes clocks', () => {
  expect([clock(0), clock(288.9), clock(3725), clock(-3)]).toEqual(['0:00', '4:48', '1:02:05', '0:00']);
});
