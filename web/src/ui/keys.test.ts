// @vitest-environment jsdom
import { afterEach, expect, test } from 'vitest';
import { usedByFocus } from './keys.svelte';

afterEach(() => (document.body.innerHTML = ''));

function used(html: string, key: string, modifier: Partial<KeyboardEvent> = {}): boolean {
  document.body.innerHTML = html;
  const target = document.querySelector<HTMLElement>('[data-at]') ?? document.body;
  return usedByFocus({ key, altKey: false, ctrlKey: false, metaKey: false, ...modifier, target });
}

test.each([
  ['<button data-at>Pause</button>', ' ', true],
  ['<button data-at>Pause</button>', 'Enter', true],
  ['<button data-at>Pause</button>', 'k', false],
  ['<button><span data-at>Pause</span></button>', ' ', true],
  ['<a href="/" data-at>Log</a>', 'Enter', true],
  ['<a href="/" data-at>Log</a>', ' ', false],
  ['<select data-at></select>', 'b', true],
  ['<select data-at></select>', 'ArrowRight', true],
  ['<input data-at>', 'b', true],
  ['<input type="date" data-at>', '1', true],
  ['<textarea data-at></textarea>', '?', true],
  ['<input type="checkbox" data-at>', ' ', true],
  ['<input type="checkbox" data-at>', 'k', false],
  ['<input type="radio" data-at>', 'ArrowLeft', true],
  ['<input type="radio" data-at>', 'g', false],
  ['<input type="range" data-at>', 'ArrowLeft', true],
  ['<input type="range" data-at>', 'Enter', false],
  ['<div role="slider" tabindex="0" data-at></div>', 'ArrowUp', true],
  ['<details><summary data-at>More</summary></details>', ' ', true],
  ['<ul tabindex="0" data-at></ul>', ' ', true],
  ['<ul tabindex="0" data-at></ul>', 'ArrowDown', true],
  ['<ul tabindex="0" data-at></ul>', 'ArrowRight', false],
  ['<p>nothing has the focus</p>', ' ', false],
])('%s uses %j: %s', (html, key, expected) => expect(used(html, key)).toBe(expected));

test('with Alt a key goes to the screen, also out of a field', () => {
  expect(used('<input data-at>', '1', { altKey: true })).toBe(false);
  expect(used('<select data-at></select>', '2', { altKey: true })).toBe(false);
});

test('undo in a text belongs to the text', () => {
  expect(used('<input data-at>', 'z', { ctrlKey: true })).toBe(true);
  expect(used('<button data-at></button>', 'z', { ctrlKey: true })).toBe(false);
});

test('while a dialog is open no key goes past it', () => {
  expect(used('<div role="dialog" data-state="open"></div><button data-at></button>', 'k')).toBe(true);
  expect(used('<div role="dialog" data-state="closed"></div><button data-at></button>', 'k')).toBe(false);
});
