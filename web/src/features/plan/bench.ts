import { api } from '../../api/client';
import { navigate } from '../../app/router';
import { notices } from '../../ui/notices.svelte';
import { touched } from '../../api/untouched';
import type { JobDraft } from './draft.svelte';

/** Take the plan to the bench: the run that is open already, or a new one with the plan as it is now. One press at a time. */
export async function toBench(draft: JobDraft) {
  if (draft.leaving) return;
  draft.leaving = true;
  try {
    await draft.save();
    if (draft.keeping.unkept) {
      notices.say(
        'The last changes are not saved yet, and the bench works from what is saved. Try again in a moment.',
        'trouble',
      );
      return;
    }
    touched(draft.id);
    const run = await api.begin(draft.id); // the run that the job has there already, or a new one
    await navigate('/bench/:id', { params: { id: String(run.id) } });
  } catch (problem) {
    notices.say((problem as Error).message, 'trouble');
  } finally {
    draft.leaving = false;
  }
}
