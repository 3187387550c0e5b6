/** The shop's currency, beside every price; known once the shop was asked for. */
import { api } from './client';

class Currency {
  name = $state('');

  async load() {
    try {
      this.name = (await api.shop()).currency ?? '';
    } catch {
      // Nobody answers: prices stand without it until the page is loaded again.
    }
  }

  /** A price in it: `12.50 EUR`. */
  money(value: number): string {
    return `${value.toFixed(2)} ${this.name}`.trim();
  }
}

export const currency = new Currency();
