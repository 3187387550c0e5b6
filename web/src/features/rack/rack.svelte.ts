import { choices } from '../../api/catalogue.svelte';
import {
  api,
  Problem,
  type RackEvent,
  type RackItem,
  type RackItemFile,
  type RackPage,
  type Stockable,
} from '../../api/client';
import { notices } from '../../ui/notices.svelte';
import { shown } from '../../units/shown.svelte';

/** So many items are shown at once. */
export const PAGE = 200;

/** The rack as it stands, what of it is shown, and the item in hand. */
export class RackDraft {
  page = $state.raw<RackPage | null>(null);
  things = $state.raw<Stockable[]>([]);
  trouble = $state<string | null>(null);
  words = $state('');
  carrier = $state('');
  family = $state('');
  retired = $state(false);
  chosen = $state<number | null>(null);
  /** The item in hand where it is not among those that are shown. */
  private apart = $state.raw<RackItem | null>(null);
  private asked = 0;

  get items(): RackItem[] {
    return this.page?.items ?? [];
  }

  /** Rails of the rack: one for each kind, coarse to fine; as many as are shown of it, and how many there are. */
  readonly rails = $derived(
    (this.page?.of_kind ?? [])
      .map(({ kind, label, count }) => ({
        kind,
        label,
        count,
        items: this.items.filter((one) => one.thing.kind === kind),
      }))
      .filter((rail) => rail.items.length),
  );

  get item(): RackItem | undefined {
    const shown = this.items.find((one) => one.id === this.chosen);
    return shown ?? (this.apart?.id === this.chosen ? (this.apart ?? undefined) : undefined);
  }

  /** What is looked for, from its beginning; only the newest question counts. */
  async load() {
    const asked = ++this.asked;
    await this.tried(async () => {
      const page = await this.ask(0, Math.max(PAGE, this.items.length));
      if (asked === this.asked) this.page = page;
    });
    await this.find();
  }

  async loadThings() {
    await this.tried(async () => void (this.things = await api.things()));
  }

  /** The next ones, below those that are shown. */
  async more() {
    const asked = ++this.asked;
    await this.tried(async () => {
      const page = await this.ask(this.items.length, PAGE);
      if (asked === this.asked) this.page = { ...page, items: [...this.items, ...page.items] };
    });
  }

  /** The item in hand, also where it is not shown. */
  async find() {
    const { chosen } = this;
    if (chosen !== null && !this.item) await this.tried(async () => void (this.apart = await api.item(chosen)));
  }

  private ask(offset: number, limit: number): Promise<RackPage> {
    const { words, carrier, family, retired } = this;
    return api.rackPage({ words, carrier, family, retired, offset, limit: Math.min(limit, 500) });
  }

  async add(items: Partial<RackItemFile>[]): Promise<boolean> {
    const added = await this.tried(() => api.putOnRack(items));
    if (!added) return false;
    this.chosen = added[0]?.id ?? this.chosen;
    await this.load();
    const misfits = added.flatMap((one) => one.misfits.map((said) => `${one.thing.label}: ${shown.tell(said)}`));
    notices.say(misfits[0] ?? `${added.length} put on the rack`, misfits.length ? 'trouble' : undefined);
    return true;
  }

  /** One after the other, each on what the one before made of the item. */
  change(item: RackItem, change: Partial<RackItemFile>) {
    return this.inTurn(async () => {
      const now = this.items.find((one) => one.id === item.id) ?? (this.apart?.id === item.id ? this.apart : item);
      await this.took(api.changeItem(item.id, { ...now.item, ...change }, now.revision));
    });
  }

  note(item: RackItem, event: Partial<RackEvent>) {
    return this.inTurn(() => this.took(api.noteItem(item.id, event)));
  }

  private turn: Promise<void> = Promise.resolve();

  private inTurn(act: () => Promise<void>): Promise<void> {
    this.turn = this.turn.then(act);
    return this.turn;
  }

  async remove(item: RackItem) {
    await this.tried(async () => {
      await api.removeItem(item.id);
      this.chosen = null;
      await this.load();
    });
  }

  private async took(answer: Promise<RackItem>) {
    try {
      const changed = await answer;
      if (this.page)
        this.page = { ...this.page, items: this.items.map((one) => (one.id === changed.id ? changed : one)) };
      if (this.apart?.id === changed.id) this.apart = changed;
      this.trouble = null;
    } catch (problem) {
      const elsewhere = problem instanceof Problem && problem.status === 412;
      if (elsewhere) await this.load();
      this.trouble = elsewhere
        ? 'This was changed on another screen, so your change was not saved. What is stored now is shown.'
        : (problem as Error).message;
    }
  }

  private async tried<Value>(act: () => Promise<Value>): Promise<Value | undefined> {
    try {
      const value = await act();
      this.trouble = null;
      return value;
    } catch (problem) {
      this.trouble = (problem as Error).message;
      return undefined;
    }
  }
}

/** What it is kept for, in words. */
export function keptFor(item: RackItem): string {
  if (item.mixed) return 'mixed: downgrade or retire it';
  const bound = [item.bound_charge_label, item.bound_family && choices.familyLabel(item.bound_family)]
    .filter(Boolean)
    .join(' · ');
  if (bound) return `only ${bound}`;
  return item.thing.keeps_to_one ? 'free' : '';
}
