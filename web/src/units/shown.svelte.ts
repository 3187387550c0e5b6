import { figures, toShown, unitLabel, type Quantity, type System } from './units';

const KEY = 'kelbrast.units';

/** The person's choice of units, kept in this browser, and values written in it. */
class Shown {
  system = $state<System>(localStorage.getItem(KEY) === 'inch' ? 'inch' : 'metric');

  toggle() {
    this.system = this.system === 'metric' ? 'inch' : 'metric';
    localStorage.setItem(KEY, this.system);
  }

  /** A value with its unit, rounded for reading. */
  say(value: number, quantity: Quantity, digits = 2): string {
    return `${this.bare(value, quantity, digits)} ${this.unit(quantity)}`;
  }

  bare(value: number, quantity: Quantity, digits = 2): string {
    return figures(toShown(value, quantity, this.system), digits);
  }

  unit(quantity: Quantity): string {
    return unitLabel(quantity, this.system);
  }
}

export const shown = new Shown();
