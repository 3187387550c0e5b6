/** What holds for the whole shop, on a screen: what is shown is what was said last, also while an answer is on its way. */
import { api, type Shop } from './client';
import { currency } from './currency.svelte';

export class ShopSettings {
  value = $state.raw<Shop | null>(null);
  trouble = $state<string | null>(null);
  private sending = false;
  private more = false;

  async load() {
    try {
      this.value = await api.shop();
      this.trouble = null;
    } catch (problem) {
      this.trouble = (problem as Error).message;
    }
  }

  /**
   * One request at a time, always with the newest of everything, so that no answer takes a later word back.
   * @throws what the server refuses; then what is kept there is shown again.
   */
  async change(next: Partial<Shop>) {
    if (!this.value) return;
    this.value = { ...this.value, ...next };
    this.more = true;
    if (this.sending) return;
    this.sending = true;
    try {
      while (this.more) {
        this.more = false;
        const kept = await api.changeShop(this.value);
        if (!this.more) this.value = kept;
        currency.name = kept.currency ?? '';
      }
    } catch (problem) {
      await this.load();
      throw problem;
    } finally {
      this.sending = false;
    }
  }
}
