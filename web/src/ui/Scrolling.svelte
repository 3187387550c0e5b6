<!-- A part of a view that scrolls when there is much in it, so the keyboard must reach it, and must be told what it is. -->
<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { HTMLAttributes } from 'svelte/elements';

  interface Props extends HTMLAttributes<HTMLElement> {
    label: string;
    as?: 'div' | 'aside' | 'ol';
    children: Snippet;
    /** As wide as it is inside. */
    width?: number;
  }
  let { label, as = 'div', children, width = $bindable(), class: looks, ...rest }: Props = $props();
</script>

<svelte:element
  this={as}
  bind:clientWidth={width}
  role={as === 'div' ? 'region' : undefined}
  aria-label={label}
  tabindex={0}
  class={['overflow-auto', looks]}
  {...rest}
>
  {@render children()}
</svelte:element>
