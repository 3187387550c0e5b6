import { choices } from '../../api/catalogue.svelte';
import { api, Problem, type RackEvent, type RackItem, type RackItemFile, type Stockable } from '../../api/client';
import { firstOfEach } from '../../ui/unique';
import { notices } from '../../ui/notices.svelte';
import { shown } from '../../units/shown.svelte';

/** The rack as it stands, what of it is shown, and the item in hand. */
export class RackDraft {
  items = $state.raw<RackItem[] | null>(null);
  things = $state.raw<Stockable[]>([]);
  trouble = $state<string | null>(null);
  kind = $state('');
  carrier = $state('');
  family = $state('');
  retired = $state(false);
  chosen = $state<number | null>(null);

  readonly carriers = $derived(
    firstOfEach(this.items ?? [], (one) => one.thing.carrier).map((one) => ({
      id: one.thing.carrier,
      label: one.thing.carrier_label,
    })),
  );
  readonly shown = $derived(
    (this.items ?? [])
      .filter((one) => this.retired || !one.retired)
      .filter((one) => !this.kind || one.thing.kind === this.kind)
      .filter((one) => !this.carrier || one.thing.carrier === this.carrier)
      .filter((one) => !this.family || one.suits.includes(this.family)),
  );
  /** Rails of the rack: one for each kind, coarse to fine. */
  readonly rails = $derived(
    firstOfEach(this.shown, (one) => one.thing.kind)
      .map(({ thing: { kind, kind_label: label } }) => ({
        kind,
        label,
        items: this.shown
          .filter((one) => one.thing.kind === kind)
          .sort((a, b) => (b.grain_um ?? 0) - (a.grain_um ?? 0) || a.thing.label.localeCompare(b.thing.label)),
      }))
      .sort((a, b) => placeOf(a.kind) - placeOf(b.kind)),
  );

  get item(): RackItem | undefined {
    return this.items?.find((one) => one.id === this.chosen);
  }

  async load() {
    await this.tried(async () => {
      [this.items, this.things] = await Promise.all([api.rack(), api.things()]);
    });
  }

  async add(items: Partial<RackItemFile>[]): Promise<boolean> {
    const added = await this.tried(() => api.putOnRack(items));
    if (!added) return false;
    this.items = [...(this.items ?? []), ...added];
    this.chosen = added[0]?.id ?? this.chosen;
    const misfits = added.flatMap((one) => one.misfits.map((said) => `${one.thing.label}: ${shown.tell(said)}`));
    notices.say(misfits[0] ?? `${added.length} put on the rack`, misfits.length ? 'trouble' : undefined);
    return true;
  }

  /** One after the other, each on what the one before made of the item. */
  change(item: RackItem, change: Partial<RackItemFile>) {
    return this.inTurn(async () => {
      const now = this.items?.find((one) => one.id === item.id) ?? item;
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
      this.items = (this.items ?? []).filter((one) => one.id !== item.id);
      this.chosen = null;
    });
  }

  private async took(answer: Promise<RackItem>) {
    try {
      const changed = await answer;
      this.items = (this.items ?? []).map((one) => (one.id === changed.id ? changed : one));
      this.trouble = null;
    } catch (problem) {
      const elsewhere = problem instanceof Problem && problem.status === 412;
      if (elsewhere) this.items = await api.rack();
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

/** Where a kind stands on the rack. */
function placeOf(kind: string): number {
  return (choices.all?.item_kinds ?? []).findIndex((one) => one.id === kind);
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
