/** A foot switch or a ring that sends a key: what the person taught each to mean at the bench. Kept in this browser. */
const STORE = 'kelbrast.taught';
export const MEANINGS = {
  next: 'Start, then: old marks gone, next',
  pause: 'Pause, go on',
  more: 'Still some, keep going',
} as const;
export type Meaning = keyof typeof MEANINGS;

/** Keys that mean something at the bench already, or that the browser needs. */
const TAKEN = new Set([...' kgpcrzmfntoshaue123456789/?', 'Escape', 'Enter', 'Tab', 'Shift', 'Control', 'Alt', 'Meta']);

class Taught {
  keys = $state<Partial<Record<Meaning, string>>>(read());

  /** Teach a meaning a key; says why where it cannot have it. */
  teach(meaning: Meaning, key: string): string | null {
    if (TAKEN.has(key.length === 1 ? key.toLowerCase() : key))
      return `${shownKey(key)} has a meaning at the bench already`;
    const other = (Object.keys(this.keys) as Meaning[]).find((one) => one !== meaning && this.keys[one] === key);
    if (other) return `${shownKey(key)} means “${MEANINGS[other]}” already`;
    this.keys = { ...this.keys, [meaning]: key };
    this.keep();
    return null;
  }

  forget(meaning: Meaning) {
    const { [meaning]: _gone, ...left } = this.keys;
    void _gone;
    this.keys = left;
    this.keep();
  }

  private keep() {
    localStorage.setItem(STORE, JSON.stringify(this.keys));
  }
}

function read(): Partial<Record<Meaning, string>> {
  try {
    return JSON.parse(localStorage.getItem(STORE) ?? '{}') as Partial<Record<Meaning, string>>;
  } catch {
    return {};
  }
}

/** A key as it is written for people. */
export const shownKey = (key: string): string => (key.length === 1 ? key.toUpperCase() : key);

export const taught = new Taught();
