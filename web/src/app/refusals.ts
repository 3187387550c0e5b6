/** Taps that could not be kept, told on whichever page is open, until somebody says that it was read. */
import { refusalText } from '../api/taps';
import { dropRefused, refusedTaps } from '../api/waiting-taps';
import { notices } from '../ui/notices.svelte';

const shown = new Set<string>();

export function showRefusals() {
  for (const one of refusedTaps()) {
    if (shown.has(one.id)) continue;
    shown.add(one.id);
    notices.say(refusalText(one), 'trouble', { label: 'I have read it', run: () => dropRefused(one.id) });
  }
}
