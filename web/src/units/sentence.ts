/** Facts in words, the one place on this side: the figures of a sentence are put in the units of whoever reads it. */
import { bare, unitLabel, type Quantity, type System } from './units';

export interface Figure {
  value: number;
  quantity: Quantity;
  digits: number;
}

/** As the server sends it (`documents/common/sentences.py`). */
export interface Sentence {
  code: string;
  words: string;
  values: Record<string, string | Figure | Sentence>;
}

export function tell(fact: Sentence, system: System): string {
  return fact.words.replace(/\{(\w+)\}/g, (_, name: string) => told(fact.values[name], system));
}

export function measured(figure: Figure, system: System): string {
  return `${bare(figure.value, figure.quantity, system, figure.digits)} ${unitLabel(figure.quantity, system)}`;
}

function told(value: string | Figure | Sentence | undefined, system: System): string {
  if (value === undefined) return '';
  if (typeof value === 'string') return value;
  return 'words' in value ? tell(value, system) : measured(value, system);
}
