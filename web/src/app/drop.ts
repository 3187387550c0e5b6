/** Any of our files may be dropped anywhere: each goes where it belongs, or is said to be none of ours. */
import { api } from '../api/client';
import { dropped } from '../api/dropped.svelte';
import { notices } from '../ui/notices.svelte';
import { smaller } from '../ui/smaller';
import { isActive, navigate, route } from './router';

type Takes = (file: File, text: string) => Promise<void>;

const takeJob: Takes = async (_, text) => {
  const kept = await api.addText(text);
  notices.say(`“${kept.job.title}” is in the list of jobs.`);
  await navigate('/jobs/:id', { params: { id: String(kept.id) } });
};

const TAKES: Record<string, Takes> = {
  'job/1': takeJob,
  'job/2': takeJob,
  'size/1': async (_, text) => {
    const kept = await api.addSizing(JSON.parse(text) as Parameters<typeof api.addSizing>[0]);
    await navigate('/gauge/:id', { params: { id: String(kept.id) } });
  },
  'run/1': async (_, text) => {
    const { run_id } = await api.bringRun(text);
    notices.say('The run is in the log.');
    await navigate('/log/:id', { params: { id: String(run_id) } });
  },
  'rack/1': async (_, text) => {
    dropped.rack = text; // looked into before it changes anything
    await navigate('/rack');
  },
  'own/1': async (_, text) => {
    dropped.own = text;
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
  if (/\.(jpe?g|png|webp)$/i.test(file.name) && isActive('/jobs/:id')) {
    const id = Number(route.params.id);
    await api.addPartPhoto(id, await smaller(file), 'before');
    await navigate('/jobs/:id/photo', { params: { id: String(id) } });
    return;
  }
  if (/\.sqlite$/i.test(file.name) || (await isEverything(file))) {
    const brought = await api.bringBackup(file);
    dropped.backup = brought.name; // looked into before it changes anything
    await navigate('/settings');
    return;
  }
  if (/\.zip$/i.test(file.name)) {
    const kept = await api.addArchive(file);
    notices.say(`${kept.length} ${kept.length === 1 ? 'job is' : 'jobs are'} in the list.`);
    await navigate('/jobs');
    return;
  }
  const text = await file.text();
  const takes = TAKES[kindOf(text)];
  if (!takes)
    throw new Error(
      'it is none of the files that belong anywhere here: a job, a rack, own things, a run, a part at the gauge, an archive of jobs or of everything, a backup; a picture belongs on the page of its job.',
    );
  await takes(file, text);
}

/** Whether an archive is one of everything: its first file says what it is. */
async function isEverything(file: File): Promise<boolean> {
  const begin = new TextDecoder('latin1').decode(await file.slice(0, 64).arrayBuffer());
  return begin.startsWith('PK') && begin.slice(30).startsWith('kelbrast.json');
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
