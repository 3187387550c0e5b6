// @vitest-environment jsdom
import { beforeEach, expect, test, vi } from 'vitest';
import { choices } from '../../api/catalogue.svelte';
import { api, Problem, type Catalogue, type RackItem, type RackPage, type Stockable } from '../../api/client';
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
/** So many at once, in these tests. */
const PAGED = 3;
const FINE = item(1, thing('abrasive', 'Paper'), { grain_um: 20 });
const COARSE = item(2, thing('abrasive', 'Belt'), { grain_um: 200, suits: ['silver'] });
const DRILL = item(3, thing('machine', 'Drill'), { suits: ['steel', 'silver'] });
const GONE = item(4, thing('abrasive', 'Old belt'), { retired: true });

beforeEach(() => {
  choices.all = {
    families: [{ id: 'steel', label: 'Steel' }],
  } as unknown as Catalogue;
  vi.spyOn(api, 'rackPage').mockImplementation((asked) => {
    const all = [DRILL, COARSE, FINE, GONE].filter((one) => asked.retired || !one.retired);
    const kinds = ['machine', 'abrasive'].map((kind) => ({
      kind,
      label: kind,
      count: all.filter((one) => one.thing.kind === kind).length,
    }));
    const items = all.slice(asked.offset, asked.offset! + Math.min(asked.limit!, PAGED));
    return Promise.resolve({
      everything: 4,
      count: all.length,
      of_kind: kinds,
      carriers: [],
      items,
    } as unknown as RackPage);
  });
  vi.spyOn(api, 'item').mockImplementation((id) => Promise.resolve(item(id, thing('wheel', 'Felt'))));
  vi.spyOn(api, 'things').mockResolvedValue([]);
});

test('rails come as they stand, with how many there are, and retired things only for the asking', async () => {
  const rack = new RackDraft();
  await rack.load();
  expect(rack.page?.count).toBe(3);
  rack.retired = true;
  await rack.load();
  expect(rack.rails.map((rail) => [rail.kind, rail.count, rail.items.map((one) => one.id)])).toEqual([
    ['machine', 1, [3]],
    ['abrasive', 3, [2, 1]],
  ]);
  await rack.more();
  expect(rack.rails[1]?.items.map((one) => one.id)).toEqual([2, 1, 4]);
});

test('the item in hand is there although it is not shown', async () => {
  const rack = new RackDraft();
  rack.chosen = 99;
  await rack.load();
  expect(rack.item?.thing.label).toBe('Felt');
  rack.chosen = 3;
  expect(rack.item?.id).toBe(3);
});

test('only the newest question counts', async () => {
  const rack = new RackDraft();
  let answer: (page: RackPage) => void = () => {};
  vi.spyOn(api, 'rackPage').mockImplementationOnce(() => new Promise((resolve) => (answer = resolve)));
  const first = rack.load();
  await rack.load();
  answer({ everything: 0, count: 0, of_kind: [], carriers: [], items: [] });
  await first;
  expect(rack.page?.everything).toBe(4);
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
  expect(rack.items).toHaveLength(PAGED);
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
