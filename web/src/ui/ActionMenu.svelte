<!-- A button that opens a menu of actions and places, in groups; keys stand beside the words. -->
<script lang="ts" module>
  export interface Action {
    id: string;
    label: string;
    /** The key that does the same. */
    shown?: string;
    /** A place to go to, or a file to take: a link. */
    href?: string;
    download?: boolean;
    run?: () => void;
    disabled?: boolean;
    /** The present place, or a choice that is on. */
    current?: boolean;
  }
  export interface Group {
    title?: string;
    actions: Action[];
  }
</script>

<script lang="ts">
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import type { Snippet } from 'svelte';

  interface Props {
    label: string;
    groups: Group[];
    /** What the button shows instead of the label. */
    face?: Snippet;
    class?: string;
    /** It takes the colours of the bar at the top. */
    current?: boolean;
  }
  let { label, groups, face, class: style = 'plain-button', current = false }: Props = $props();
  const name = $derived(face ? label : undefined);
  let OpenMenu = $state.raw<typeof import('./OpenMenu.svelte').default | null>(null);
  /** It was pressed before the menu was there. */
  let pressed = $state(false);

  async function reach() {
    OpenMenu ??= (await import('./OpenMenu.svelte')).default;
  }
</script>

{#snippet words()}
  {#if face}{@render face()}{:else}{label} <ChevronDown size={15} aria-hidden="true" />{/if}
{/snippet}

{#if OpenMenu && pressed}
  <OpenMenu label={name} {groups} face={words} {style} {current} open />
{:else}
  <button
    class={style}
    aria-label={name}
    aria-haspopup="menu"
    aria-expanded="false"
    data-current={current || undefined}
    onpointerenter={reach}
    onclick={() => {
      pressed = true;
      void reach();
    }}>{@render words()}</button
  >
{/if}
