/** The form of something of the shop's own: what is asked about each kind, from its entry and back. */
import type { OwnEntry } from '../api/client';

export type OwnKind = OwnEntry['kind'];
export const KINDS: { id: OwnKind; label: string }[] = [
  { id: 'tool', label: 'Tool' },
  { id: 'compound', label: 'Compound' },
  { id: 'machine', label: 'Machine' },
  { id: 'material', label: 'Material' },
  { id: 'finish', label: 'Finish' },
];

export function blank(kind: OwnKind, by: string): OwnEntry {
  const head = { id: '', name: '', like: '', by, note: '', retired: false };
  if (kind === 'tool') return { ...head, kind, grades: [], cuts: 1, lasts: 1, marks: 1 };
  if (kind === 'compound') return { ...head, kind, cuts: 1 };
  if (kind === 'machine') return { ...head, kind, rpm: [] };
  return { ...head, kind };
}

/** Words between commas or spaces. */
export function listed(text: string): string[] {
  return text
    .split(/[,;\s]+/)
    .map((word) => word.trim())
    .filter(Boolean);
}

/** What stands on a rack of an entry: each grade of a tool, else the thing itself; nothing of a material or a finish. */
export function onRack(entry: OwnEntry): string[] {
  const id = entry.id ?? '';
  if (entry.kind === 'compound' || entry.kind === 'machine') return [id];
  if (entry.kind !== 'tool') return [];
  return entry.grades?.length ? entry.grades.map((grade) => `${id}-${grade.toLowerCase()}`) : [id];
}
