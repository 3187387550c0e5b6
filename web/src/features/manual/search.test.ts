import { expect, test } from 'vitest';
import { passagesOf, search, type Passage } from './search';

const html = '<h1>The rack</h1><p>What the shop owns.</p><h2>Diameter</h2><ul><li>A worn wheel runs slower</li></ul>';
const element = (tagName: string, textContent: string) => ({ tagName, textContent, querySelector: () => null });
const parse = () =>
  ({
    querySelectorAll: () => [
      element('H1', 'The rack'),
      element('P', 'What the  shop owns.'),
      element('H2', 'Diameter'),
      element('LI', 'A worn wheel runs slower'),
    ],
  }) as unknown as Document;

test('a page in passages, each under its heading', () => {
  expect(passagesOf({ id: 'rack', title: 'The rack', html }, parse)).toEqual([
    { page: 'rack', title: 'The rack', heading: 'The rack', text: 'What the shop owns.' },
    { page: 'rack', title: 'The rack', heading: 'Diameter', text: 'A worn wheel runs slower' },
  ]);
});

test('every word must be there, a heading counts most, and nothing is found for nothing', () => {
  const passage = (heading: string, text: string): Passage => ({ page: 'x', title: 'X', heading, text });
  const all = [
    passage('Rows', 'a wheel that is worn'),
    passage('Worn wheels', 'dress them'),
    passage('Bars', 'a wheel'),
  ];
  expect(search(all, 'worn WHEEL').map((one) => one.heading)).toEqual(['Worn wheels', 'Rows']);
  expect(search(all, ' ')).toEqual([]);
  expect(search(all, 'wheel', 1)).toHaveLength(1);
});
