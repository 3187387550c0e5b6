import { describe, expect, it, test } from 'vitest';
import numbers from '../../../tests/numbers.json';
import sentences from '../../../tests/sentences.json';
import { tell, type Sentence } from './sentence';
import {
  bare,
  clock,
  difference,
  duration,
  figures,
  fromShown,
  inUnit,
  plannedClock,
  readNumber,
  roundedDown,
  span,
  toShown,
  typed,
  unitLabel,
  usedUp,
  whole,
  type Quantity,
  inSentence,
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

  it('keeps every figure of a typed value', () => {
    expect(typed(25.8, 'depth', 'metric')).toBe('25.8');
    expect(typed(25.4, 'depth', 'inch')).toBe('1');
  });
});

// The server reads the same table.
describe('numbers as people write them', () => {
  test.each(Object.entries(numbers.read))('%j is %d', (text, value) => expect(readNumber(text)).toBe(value));
  test.each(numbers['two ways'])('%j is asked about', (text) =>
    expect(readNumber(text)).toEqual({ wrong: expect.stringContaining('two ways') as string }),
  );
  test.each(numbers['not a number'])('%j is none', (text) =>
    expect(readNumber(text)).toEqual({ wrong: 'This is not a number' }),
  );
});

// And says the same times and the same sentences.
test.each(numbers.minutes as [number, string][])('%d minutes are %j', (minutes, said) =>
  expect(duration(minutes)).toBe(said),
);

test.each(numbers.range as [number, number | null, string][])('%d to %d minutes are %j', (minutes, high, said) =>
  expect(span({ minutes, minutes_high: high })).toBe(said),
);

test.each(sentences.map((one) => [one.said.code, one] as const))('%s in both systems', (_, one) => {
  const fact = one.said as unknown as Sentence;
  expect(tell(fact, 'metric')).toBe(one.metric);
  expect(tell(fact, 'inch')).toBe(one.inch);
});

it('a speed has three figures and is never above the plan', () => {
  expect([16552, 2850, 999.9, 0].map((rpm) => roundedDown(rpm))).toEqual([16500, 2850, 999, 0]);
  expect(bare(27.99, 'speed', 'metric')).toBe('27.9');
  expect(bare(27.99, 'speed', 'inch')).toBe('5\u202f500'); // 5509.8
});

it('puts the figures of tables and sums in the units shown', () => {
  expect(inUnit(25.4, 'um', 'grain of P600', 'inch')).toBe('1 thou');
  expect(inUnit(0.4, 'um', 'ra high', 'inch')).toBe('15.75 µin');
  expect(inUnit(203.2, 'mm', 'diameter', 'inch')).toBe('8 in');
  expect(inUnit(45, 'K', 'warmer by', 'inch')).toBe('81 °F');
  expect(inUnit(8730, 'kg/m3', 'density', 'inch')).toBe('8730 kg/m³');
  expect(inUnit(0.0337, '1', 'share', 'metric')).toBe('0.0337');
  expect(inUnit(25.79, 'um', 'grain', 'metric', 3)).toBe('25.8 µm');
});

it('writes clocks', () => {
  expect([clock(0), clock(288.9), clock(3725), clock(-3)]).toEqual(['0:00', '4:48', '1:02:05', '0:00']);
  expect([plannedClock(126), plannedClock(1)]).toEqual(['2:05', '0:05']);
});

it('says how much longer', () => {
  expect([difference(0.1), difference(2), difference(-141)]).toEqual(['same time', '+2 min', '−2 h 20']);
});

it('puts a label into a sentence, and leaves symbols and codes as they are', () => {
  expect(['Brass', 'Ra at most 0.2 µm', 'N5', 'ABS', 'Tin bronze'].map(inSentence)).toEqual([
    'brass',
    'Ra at most 0.2 µm',
    'N5',
    'ABS',
    'tin bronze',
  ]);
});

it('says what is used up as people do', () => {
  expect([0, 0.022, 0.25, 0.9, 1.6, 2.2, 7.4].map((count) => usedUp(count, 'disc'))).toEqual([
    'no disc',
    'a little of a disc',
    'a quarter of a disc',
    '1 disc',
    'one and a half discs',
    '2 discs',
    '7 discs',
  ]);
  expect(usedUp(0.1, 'ounce')).toBe('a tenth of an ounce');
});
