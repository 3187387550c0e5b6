// @vitest-environment jsdom
import { beforeEach, expect, test, vi } from 'vitest';
import { choices } from '../../api/catalogue.svelte';
import { api, Problem, type Catalogue, type RackItem, type Stockable } from '../../api/client';
import { keptFor, RackDraft } from './rack.svelte';

const thing = (kind: string, label: string, more = {}) =>
  ({
    kind,
    kind_label: kind,
    label,
    carrier: label,
    carrier_label: label,
    keeps_to_one: false,
    ...more,
  }) as unknown as Stockable;
const item = (id: number, given: Stockable, more = {}) =>
  ({
    id,
    revision: 1,
    thing: given,
    item: { name: '' },
    retired: false,
    suits: ['steel'],
    misfits: [],
    grain_um: null,
    ...more,
  }) as unknown as RackItem;
const FINE = item(1, thing('abrasive', 'Paper'), { grain_um: 20 });
const COARSE = item(2, thing('abrasive', 'Belt'), { grain_um: 200, suits: ['silver'] });
const DRILL = item(3, thing('machine', 'Drill'), { suits: ['steel', 'silver'] });
const GONE = item(4, thing('abrasive', 'Old belt'), { retired: true });

beforeEach(() => {
  choices.all = {
    item_kinds: [
      { id: 'machine', label: '' },
      { id: 'abrasive', label: '' },
    ],
    families: [{ id: 'steel', label: 'Steel' }],
  } as unknown as Catalogue;
  vi.spyOn(api, 'rack').mockResolvedValue([FINE, COARSE, DRILL, GONE]);
  vi.spyOn(api, 'things').mockResolvedValue([]);
});

test('rails come in the order of the catalogue, coarse to fine, and retired things only for the asking', async () => {
  const rack = new RackDraft();
  await rack.load();
  expect(rack.rails.map((rail) => rail.items.map((one) => one.id))).toEqual([[3], [2, 1]]);
  rack.retired = true;
  expect(rack.rails[1]?.items.map((one) => one.id)).toEqual([2, 1, 4]);
});

test('what suits a family is what the program says', async () => {
  const rack = new RackDraft();
  await rack.load();
  rack.family = 'silver';
  expect(rack.shown.map((one) => one.id)).toEqual([2, 3]);
});

test('changes of one thing go out one after the other, each on what the one before made of it', async () => {
  const sent: [number, string | undefined][] = [];
  vi.spyOn(api, 'changeItem').mockImplementation((_, given, revision) => {
    sent.push([revision, given.name]);
    return Promise.resolve(item(1, FINE.thing, { revision: revision + 1, item: given }));
  });
  const rack = new RackDraft();
  await rack.load();
  await Promise.all([rack.change(FINE, { name: 'mine' }), rack.change(FINE, { count: 3 })]);
  expect(sent).toEqual([
    [1, 'mine'],
    [2, 'mine'],
  ]);
});

test('what cannot be put on the rack leaves it as it was', async () => {
  vi.spyOn(api, 'putOnRack').mockRejectedValue(new Problem(422, 'There is no such thing'));
  const rack = new RackDraft();
  await rack.load();
  expect(await rack.add([{ what: 'moon' }])).toBe(false);
  expect(rack.items).toHaveLength(4);
});

test('what a wheel is kept for', () => {
  const wheel = thing('wheel', 'Felt', { keeps_to_one: true });
  expect(keptFor(item(5, wheel))).toBe('free');
  expect(keptFor(item(5, wheel, { bound_charge_label: 'white bar', bound_family: 'steel' }))).toBe(
    'only white bar · Steel',
  );
  expect(keptFor(item(5, wheel, { mixed: true }))).toContain('mixed');
  expect(keptFor(DRILL)).toBe('');
});
