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
      keys.map((key) => [
        key.press,
        (event: KeyboardEvent) => {
          if (typing(event) || event.defaultPrevented) return;
          event.preventDefault();
          key.run();
        },
      ]),
    );
    const unbind = tinykeys(window, bound);
    return () => {
      unbind();
      const at = activeKeys.groups.findIndex((one) => one.title === title);
      if (at >= 0) activeKeys.groups.splice(at, 1);
    };
  });
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
