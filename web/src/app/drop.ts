/** Any of our files may be dropped anywhere: each goes where it belongs, or is said to be none of ours. */
import { api } from '../api/client';
import { dropped } from '../api/dropped.svelte';
import { notices } from '../ui/notices.svelte';
import { navigate } from './router';

type Takes = (file: File, text: string) => Promise<void>;

const TAKES: Record<string, Takes> = {
  'job/1': async (_, text) => {
    const kept = await api.addText(text);
    notices.say(`“${kept.job.title}” is in the list of jobs.`);
    await navigate('/jobs/:id', { params: { id: String(kept.id) } });
  },
  'size/1': async (_, text) => {
    const kept = await api.addSizing(JSON.parse(text) as Parameters<typeof api.addSizing>[0]);
    await navigate('/gauge/:id', { params: { id: String(kept.id) } });
  },
  'rack/1': async (_, text) => {
    dropped.rack = text; // looked into before it changes anything
    await navigate('/rack');
  },
};

export async function takeDropped(files: readonly File[]) {
  for (const file of files)
    try {
      await take(file);
    } catch (problem) {
      notices.say(`${file.name} was not taken: ${(problem as Error).message}`, 'trouble');
    }
}

async function take(file: File) {
  if (/\.zip$/i.test(file.name)) {
    const kept = await api.addArchive(file);
    notices.say(`${kept.length} ${kept.length === 1 ? 'job is' : 'jobs are'} in the list.`);
    await navigate('/');
    return;
  }
  const text = await file.text();
  const takes = TAKES[kindOf(text)];
  if (!takes)
    throw new Error(
      'it is none of the files that belong anywhere here: a job, a rack, a part at the gauge, or an archive of jobs.',
    );
  await takes(file, text);
}

/** The kind that a file says it is; nothing where it is no JSON of ours. */
export function kindOf(text: string): string {
  try {
    const told: unknown = JSON.parse(text);
    return told !== null && typeof told === 'object' && 'kelbrast' in told ? String(told.kelbrast) : '';
  } catch {
    return '';
  }
}
