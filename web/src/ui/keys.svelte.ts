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

/** Bind keys while a component lives; they never take a key that the focused control or an open dialog uses. */
export function useKeys(title: string, keys: Key[]) {
  onMount(() => {
    const group = { title, keys };
    activeKeys.groups.push(group);
    const bound = Object.fromEntries(
      keys.flatMap((key) => {
        const fire = (event: KeyboardEvent) => {
          // A key that is held down walks, but it does nothing twice that is kept.
          const held = event.repeat && !event.key.startsWith('Arrow');
          if (event.defaultPrevented || held || usedByFocus(event)) return;
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

/** Keys by which each kind of control is worked; "text" stands for everything that writes. */
const USES: readonly [selector: string, keys: readonly string[] | 'text'][] = [
  ['textarea, [contenteditable=""], [contenteditable="true"]', 'text'],
  // A list opens on Enter and Space, walks on arrows and jumps to the choice that begins with a letter.
  ['select, [role="listbox"], [role="combobox"], [role="menu"]', 'text'],
  ['input[type="range"], [role="slider"]', [' ', 'ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown', 'Home', 'End']],
  ['input[type="checkbox"], [role="checkbox"], [role="switch"]', [' ']],
  ['input[type="radio"], [role="radiogroup"]', [' ', 'ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown']],
  ['[role="tablist"]', [' ', 'Enter', 'ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown', 'Home', 'End']],
  ['button, summary, [role="button"], input[type="button"], input[type="submit"], input[type="file"]', [' ', 'Enter']],
  ['a[href]', ['Enter']],
  ['input', 'text'],
  // A region that scrolls when the focus is in it.
  ['[tabindex="0"]', [' ', 'ArrowUp', 'ArrowDown', 'PageUp', 'PageDown', 'Home', 'End']],
];

/** Whether the control that has the focus, or the dialog that is open, uses this key itself. The one place that decides it. */
export function usedByFocus(event: Pick<KeyboardEvent, 'key' | 'altKey' | 'ctrlKey' | 'metaKey' | 'target'>): boolean {
  if (document.querySelector('[role="dialog"][data-state="open"]')) return true;
  const at = event.target;
  if (!(at instanceof HTMLElement) || at === document.body) return false;
  const found = USES.find(([selector]) => at.closest(selector));
  if (!found) return false;
  const [, keys] = found;
  // With a modifier nothing is written, except that undo, copy and the like belong to a text that is being typed.
  if (keys === 'text') return !event.altKey;
  return !event.altKey && !event.ctrlKey && !event.metaKey && keys.includes(event.key);
}
