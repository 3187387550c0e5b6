import { beforeEach, expect, it, vi } from 'vitest';
import type { Shop } from './client';

vi.stubGlobal('localStorage', { getItem: () => null });
const { api, Problem } = await import('./client');
const { ShopSettings } = await import('./shop.svelte');

const KEPT = { currency: 'EUR', hour: 48, margin: 0.15 } as Shop;
let answers: ((told: Shop | Error) => void)[] = [];
let sent: Shop[] = [];

beforeEach(() => {
  answers = [];
  sent = [];
  vi.spyOn(api, 'shop').mockResolvedValue(KEPT);
  vi.spyOn(api, 'changeShop').mockImplementation((body) => {
    sent.push(body);
    return new Promise((told, refuse) => answers.push((one) => (one instanceof Error ? refuse(one) : told(one))));
  });
});

it('loses nothing of what quick hands say while an answer is on its way', async () => {
  const shop = new ShopSettings();
  await shop.load();
  const first = shop.change({ currency: 'GBP' });
  await shop.change({ hour: 61 });
  await shop.change({ margin: 0.2 });
  expect(shop.value).toMatchObject({ currency: 'GBP', hour: 61, margin: 0.2 });
  expect(sent).toHaveLength(1);
  answers[0]!({ ...sent[0]! });
  await vi.waitFor(() => expect(sent).toHaveLength(2));
  expect(sent[1]).toMatchObject({ currency: 'GBP', hour: 61, margin: 0.2 });
  answers[1]!({ ...sent[1]! });
  await first;
  expect(shop.value).toMatchObject({ currency: 'GBP', hour: 61, margin: 0.2 });
});

it('shows what is kept again when it is refused, and goes on', async () => {
  const shop = new ShopSettings();
  await shop.load();
  const refused = shop.change({ hour: -1 });
  answers[0]!(new Problem(422, 'must be above 0'));
  await expect(refused).rejects.toThrow('must be above 0');
  expect(shop.value).toEqual(KEPT);
  void shop.change({ hour: 50 });
  expect(sent[1]).toMatchObject({ hour: 50, currency: 'EUR' });
});
