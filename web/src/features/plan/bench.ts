import { api } from '../../api/client';
import { navigate } from '../../app/router';
import { notices } from '../../ui/notices.svelte';
import type { JobDraft } from './draft.svelte';

/** Take the plan to the bench: the run that is open already, or a new one with the plan as it is now. */
export async function toBench(draft: JobDraft) {
  try {
    await draft.save();
    const open = (await api.runs()).find((run) => run.job_id === draft.id);
    const run = open ?? (await api.begin(draft.id));
    await navigate('/bench/:id', { params: { id: String(run.id) } });
  } catch (problem) {
    notices.say((problem as Error).message, 'trouble');
  }
}
