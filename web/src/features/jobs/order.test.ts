import { expect, test } from 'vitest';
import type { JobSummary } from '../../api/client';
import { chosen, sorted } from './order';

const job = (title: string, more: Partial<JobSummary>) =>
  ({
    title,
    customer: '',
    material: 'Brass',
    note: '',
    minutes: null,
    due: null,
    kept_state: 'asked',
    ...more,
  }) as JobSummary;
const JOBS = [
  job('Rail collar', { kept_state: 'ordered', due: '2026-11-28T12:00:00', minutes: 116 }),
  job('Name plates', { kept_state: 'delivered', customer: 'Harbour office', minutes: 20 }),
  job('Clock housing', { note: 'dent on the left', due: '2026-11-27T16:00:00' }),
];
const titles = (jobs: JobSummary[]) => jobs.map((one) => one.title);
const none = () => '';

test('by state, and what is open is neither done nor delivered', () => {
  expect(titles(chosen(JOBS, 'all', '', none))).toHaveLength(3);
  expect(titles(chosen(JOBS, 'open', '', none))).toEqual(['Rail collar', 'Clock housing']);
  expect(titles(chosen(JOBS, 'ordered', '', none))).toEqual(['Rail collar']);
});

test('every word must be found, wherever it stands', () => {
  expect(titles(chosen(JOBS, 'all', 'HARBOUR plates', none))).toEqual(['Name plates']);
  expect(titles(chosen(JOBS, 'all', 'dent', none))).toEqual(['Clock housing']);
  expect(titles(chosen(JOBS, 'all', 'satin', (one) => (one.title === 'Rail collar' ? 'Satin' : '')))).toEqual([
    'Rail collar',
  ]);
  expect(chosen(JOBS, 'all', 'dent harbour', none)).toEqual([]);
});

test('in order, with what says nothing last', () => {
  expect(titles(sorted(JOBS, 'due'))).toEqual(['Clock housing', 'Rail collar', 'Name plates']);
  expect(titles(sorted(JOBS, 'customer'))[0]).toBe('Name plates');
  expect(titles(sorted(JOBS, 'minutes'))).toEqual(['Rail collar', 'Name plates', 'Clock housing']);
  expect(titles(sorted(JOBS, 'title'))).toEqual(['Clock housing', 'Name plates', 'Rail collar']);
  expect(sorted(JOBS, 'changed')).toBe(JOBS);
});
