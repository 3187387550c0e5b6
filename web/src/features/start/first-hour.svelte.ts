import { choices } from '../../api/catalogue.svelte';
import { api, type Shop } from '../../api/client';
import { notices } from '../../ui/notices.svelte';

export const STEPS = ['units', 'shop', 'work'] as const;

/** The three first questions. Each may be skipped; what was answered is kept with the shop. */
export class FirstHour {
  at = $state(0);
  shop = $state.raw<Shop | null>(null);
  kits = $state<string[]>([]);
  left = $state<string[]>([]);
  busy = $state(false);

  constructor(shop: Shop) {
    this.shop = shop;
  }

  /** What the ticked kits put on the rack, everything once, without what was unticked. */
  get things(): string[] {
    return Object.keys(this.counts);
  }

  /** How many of each: a packet of paper, one wheel. */
  private get counts(): Record<string, number> {
    const ticked = (choices.all?.kits ?? []).filter((one) => this.kits.includes(one.id));
    return Object.assign({}, ...ticked.map((one) => one.items)) as Record<string, number>;
  }

  get kept(): string[] {
    return this.things.filter((one) => !this.left.includes(one));
  }

  tick(kit: string, on: boolean) {
    this.kits = on ? [...this.kits, kit] : this.kits.filter((one) => one !== kit);
  }

  leave(thing: string, on: boolean) {
    this.left = on ? this.left.filter((one) => one !== thing) : [...this.left, thing];
  }

  next(): boolean {
    if (this.at < STEPS.length - 1) this.at += 1;
    return this.at < STEPS.length;
  }

  change(change: Partial<Shop>) {
    if (this.shop) this.shop = { ...this.shop, ...change };
  }

  usual(change: Partial<NonNullable<Shop['usual']>>) {
    if (this.shop?.usual) this.change({ usual: { ...this.shop.usual, ...change } });
  }

  /** Put the ticked things on the rack and keep the answers. Says whether all of it was kept. */
  async finish(): Promise<boolean> {
    if (!this.shop || this.busy) return false;
    this.busy = true;
    try {
      if (this.kept.length) await api.putOnRack(this.kept.map((what) => ({ what, count: this.counts[what] })));
      this.shop = await api.changeShop({ ...this.shop, welcomed: true });
      this.left = this.kits = [];
      return true;
    } catch (problem) {
      notices.say((problem as Error).message, 'trouble');
      return false;
    } finally {
      this.busy = false;
    }
  }
}
