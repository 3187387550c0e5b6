/** The demo workshop looked at from inside, and left without a trace. */
import { api } from '../api/client';
import { notices } from '../ui/notices.svelte';

/** Everything is asked anew after it: the pages hold data of one shop or the other, never of both. */
async function changeOver(ask: () => Promise<unknown>) {
  try {
    await ask();
    location.assign('/');
  } catch (problem) {
    notices.say((problem as Error).message, 'trouble');
  }
}

export const lookAtDemo = () => changeOver(() => api.lookAtDemo());

export const leaveDemo = () =>
  changeOver(async () => {
    await api.leaveDemo();
    for (const key of Object.keys(localStorage)) if (key.startsWith('kelbrast.demo.')) localStorage.removeItem(key);
  });
