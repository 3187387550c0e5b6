import { expect, test } from 'vitest';

/** Parts of parts, dialogs with a story of their own, and what needs a run or a photo: they are shown by what holds them. */
const WITHIN = [
  'DamagePicker',
  'LapsAtHand',
  'MeasuredFile',
  'Notices',
  'OpenMenu',
  'OpenNotices',
  'OpenPopup',
  'PartPicture',
  'Sheet',
  'ShopSheet',
  'SideBySide',
  'SizeWanted',
  'TermDrawing',
  'TrustCertificate',
  'WaysBack',
];

test('the gallery shows every part', () => {
  const [gallery] = Object.values(
    import.meta.glob<string>('./Gallery.svelte', { query: '?raw', import: 'default', eager: true }),
  );
  const parts = Object.keys(import.meta.glob('../../ui/*.svelte')).map((file) => /(\w+)\.svelte$/.exec(file)![1]!);
  expect(parts.length).toBeGreaterThan(25);
  const missing = parts.filter((part) => !WITHIN.includes(part) && !gallery!.includes(`<${part}`));
  expect(missing).toEqual([]);
  expect(WITHIN.filter((part) => !parts.includes(part))).toEqual([]);
});
