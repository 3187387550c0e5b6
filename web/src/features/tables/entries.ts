import type { Catalogue, Figures } from '../../api/client';
import { shown } from '../../units/shown.svelte';
import { whole } from '../../units/units';

export const TABS = [
  { id: 'materials', label: 'Materials' },
  { id: 'finishes', label: 'Finishes' },
  { id: 'tools', label: 'Tools' },
  { id: 'machines', label: 'Machines' },
  { id: 'uses', label: 'Uses' },
  { id: 'inserts', label: 'Inserts' },
  { id: 'grades', label: 'Grades' },
] as const;
export type Tab = (typeof TABS)[number]['id'];
type Figure = Figures['materials'][string][number];

export interface Entry {
  id: string;
  label: string;
  about: string;
  figures: Figure[];
}

/** One line per thing, and its figures with their sources. */
export function entries(all: Catalogue, behind: Figures | null, tab: Exclude<Tab, 'grades'>): Entry[] {
  if (tab === 'materials')
    return all.materials.map((one) => ({
      ...one,
      figures: behind?.materials[one.id] ?? [],
      about: `hardness ${shown.say(one.hardness_gpa, 'hardness')}; keep the surface below ${shown.say(one.limit_c, 'temperature')}`,
    }));
  if (tab === 'finishes')
    return all.finishes.map((one) => ({
      ...one,
      figures: behind?.finishes[one.id] ?? [],
      about: shown.tell(one.purpose_said),
    }));
  if (tab === 'tools')
    return all.tools.map((one) => ({
      ...one,
      figures: behind?.tools[one.id] ?? [],
      about:
        `${shown.say(one.grain_um, 'depth')} grain` +
        (one.reaches_depth_um === null ? '' : `; takes out marks to ${shown.say(one.reaches_depth_um, 'depth')}`) +
        (one.speed_limit_m_s === null ? '' : `; never above ${shown.say(one.speed_limit_m_s, 'speed')}`),
    }));
  if (tab === 'uses')
    return all.uses.map((one) => ({
      ...one,
      label: `${one.label}: ${all.finishes.find((finish) => finish.id === one.finish)?.label ?? one.finish}`,
      about: shown.tell(one.reason_said),
      figures: [],
    }));
  if (tab === 'inserts')
    return all.inserts.map((one) => ({
      ...one,
      about: `Keep the part below ${shown.say(one.limit_c, 'temperature')}. ${one.word}`,
      figures: [],
    }));
  return all.machines.map((one) => ({
    ...one,
    about: one.rpm_range
      ? `${whole(one.rpm_range[0])} to ${whole(one.rpm_range[1])} per minute`
      : one.rpm.length
        ? `${one.rpm.map(whole).join(', ')} rev/min`
        : `strokes of ${shown.say(one.stroke_m_s ?? 0, 'speed')}`,
    figures: [],
  }));
}
