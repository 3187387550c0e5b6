import { converted, figures, toShown, unitLabel, type Quantity, type System } from './units';

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

  /** A sentence from the server, its figures in the units shown. */
  text(said: string): string {
    return converted(said, this.system);
  }

  unit(quantity: Quantity): string {
    return unitLabel(quantity, this.system);
  }
}

export const shown = new Shown();
