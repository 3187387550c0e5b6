import { tell, type Sentence } from './sentence';
import { bare, inUnit, unitLabel, type Quantity, type System } from './units';

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
    return bare(value, quantity, this.system, digits);
  }

  /** A figure of the tables or of a sum. */
  inUnit(value: number, unit: string, name: string, digits?: number): string {
    return inUnit(value, unit, name, this.system, digits);
  }

  /** A fact of an answer in words; nothing where there is none. */
  tell(fact: Sentence | null | undefined): string {
    return fact ? tell(fact, this.system) : '';
  }

  unit(quantity: Quantity): string {
    return unitLabel(quantity, this.system);
  }
}

export const shown = new Shown();
