import { api, type Job, type KeptQuote, type Quote } from '../../api/client';
import { ShopSettings } from '../../api/shop.svelte';
import { firstOfEach } from '../../ui/unique';
import { Answer } from '../../ui/answer.svelte';
import { notices } from '../../ui/notices.svelte';
import { shown } from '../../units/shown.svelte';

/** Numbers of pieces as they are typed: `1, 11, 20`. */
export function piecesIn(text: string): number[] {
  const numbers = text
    .split(/[,;\s]+/)
    .map(Number)
    .filter((one) => Number.isInteger(one) && one >= 1 && one <= 100_000);
  return firstOfEach(numbers, (one) => one).slice(0, 20);
}

/** The quote of one job: the page for its customer, and what only the shop sees. */
export class QuoteDraft {
  job = $state.raw<Job | null>(null);
  trouble = $state<string | null>(null);
  typed = $state<string | null>(null);
  busy = $state(false);
  /** Counts changes of the logo, so that the new one is shown. */
  logo = $state(0);
  shop = new ShopSettings();
  private revision = 0;
  private state = { state: 'asked', number: 0 };
  private quoted = new Answer<Quote>();
  private before = new Answer<KeptQuote[]>();

  constructor(readonly id: number) {}

  async load() {
    try {
      const kept = await api.job(this.id);
      [this.job, this.revision] = [kept.job, kept.revision];
      this.state = { state: kept.state, number: kept.state_number };
      await this.shop.load();
      this.before.ask(api.quotes(this.id), true);
    } catch (problem) {
      this.trouble = (problem as Error).message;
    }
    this.look();
  }

  get quote(): Quote | null {
    return this.quoted.value;
  }

  get saved(): KeptQuote[] {
    return this.before.value ?? [];
  }

  get said(): string | null {
    return this.trouble ?? this.quoted.trouble;
  }

  get usual(): string {
    const own = this.job?.pieces ?? 1;
    return firstOfEach([1, 5, 20, own], (one) => one)
      .sort((a, b) => a - b)
      .join(', ');
  }

  get pieces(): number[] {
    return piecesIn(this.typed ?? this.usual);
  }

  /** What it costs now. */
  look() {
    if (this.job && this.pieces.length) this.quoted.ask(api.quote(this.id, this.pieces, shown.system === 'inch'), true);
  }

  /** Something of the job that stands on the page. */
  changeJob = (change: Partial<Job>) =>
    this.quietly(async () => {
      if (!this.job) return;
      const kept = await api.change(this.id, { ...this.job, ...change }, this.revision);
      [this.job, this.revision] = [kept.job, kept.revision];
      this.look();
    });

  changeShop = (change: Parameters<ShopSettings['change']>[0]) =>
    this.quietly(async () => {
      await this.shop.change(change);
      this.look();
    });

  /** With the next number, as it is sent. Returns where its PDF is. */
  async save(): Promise<string | null> {
    if (this.busy) return null;
    this.busy = true;
    const kept = await this.quietly(() => api.keepQuote(this.id, this.pieces, shown.system === 'inch'));
    if (kept && this.state.state === 'asked') {
      const after = await this.quietly(() => api.setJobState(this.id, 'quoted', this.state.number));
      if (after) this.state = { state: after.state, number: after.state_number };
    }
    this.busy = false;
    this.before.ask(api.quotes(this.id), true);
    return kept ? `/api/quotes/${kept.id}.pdf` : null;
  }

  private async quietly<T>(act: () => Promise<T>): Promise<T | null> {
    try {
      return await act();
    } catch (problem) {
      notices.say((problem as Error).message, 'trouble');
      return null;
    }
  }
}
