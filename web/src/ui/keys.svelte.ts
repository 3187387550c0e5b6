import { onMount } from 'svelte';
import { tinykeys } from 'tinykeys';

export interface Key {
  /** As tinykeys writes it: "n", "Alt+1", "?". */
  press: string;
  /** As shown to people. */
  shown: string;
  does: string;
  run: () => void;
}

/** The keys that work on the screen in front, for the `?` sheet. */
export const activeKeys = $state<{ groups: { title: string; keys: Key[] }[] }>({ groups: [] });

/** Bind keys while a component lives; they never fire while something is being typed or a dialog is open. */
export function useKeys(title: string, keys: Key[]) {
  onMount(() => {
    const group = { title, keys };
    activeKeys.groups.push(group);
    const bound = Object.fromEntries(
      keys.flatMap((key) => {
        const fire = (event: KeyboardEvent) => {
          if (typing(event) || event.defaultPrevented) return;
          event.preventDefault();
          key.run();
        };
        return presses(key.press).map((press) => [press, fire]);
      }),
    );
    const unbind = tinykeys(window, bound);
    return () => {
      unbind();
      const at = activeKeys.groups.findIndex((one) => one.title === title);
      if (at >= 0) activeKeys.groups.splice(at, 1);
    };
  });
}

/** Whether a sign such as / or ? needs Shift depends on the keyboard's country. */
function presses(press: string): string[] {
  return /^[^a-z0-9+]$/i.test(press) ? [press, `Shift+${press}`] : [press];
}

function typing(event: KeyboardEvent): boolean {
  if (document.querySelector('[role="dialog"][data-state="open"]')) return true;
  const at = event.target;
  if (!(at instanceof HTMLElement)) return false;
  if (at.isContentEditable || at.closest('textarea, select, [role="slider"], [role="radiogroup"], [role="tablist"]'))
    return true;
  const input = at.closest('input');
  return input !== null && !['checkbox', 'button', 'submit'].includes(input.type);
}
