<!-- What is known of a face: the question, and its answer as a line that opens. -->
<script lang="ts">
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import { Accordion } from '@skeletonlabs/skeleton-svelte';
  import type { Snippet } from 'svelte';
  import { capital } from '../../units/units';

  interface Props {
    id: string;
    question: string;
    said: string;
    /** What it says cannot be planned. */
    faulty?: boolean;
    open: boolean;
    /** It stands within another answer. */
    within?: boolean;
    children: Snippet;
  }
  let { id, question, said, faulty = false, open, within = false, children }: Props = $props();
</script>

<Accordion.Item value={id}>
  <Accordion.ItemTrigger
    class="flex min-h-11 w-full items-center gap-2 py-1 text-left hover:bg-(--raised) {within ? 'px-0' : 'px-3.5'}"
    aria-label="{question}: {said}"
  >
    <span class="min-w-0 flex-1">
      <span class="small dim block">{question}</span>
      <span class="block font-semibold" class:text-(--stop)={faulty}>{capital(said)}</span>
    </span>
    <Accordion.ItemIndicator class="dim transition-transform data-[state=open]:rotate-180"
      ><ChevronDown size={16} aria-hidden="true" /></Accordion.ItemIndicator
    >
  </Accordion.ItemTrigger>
  <Accordion.ItemContent class={within ? 'p-0 pt-1 pb-2' : 'px-3.5 pt-1 pb-3'}>
    {#if open}<div class={within ? 'grid gap-3' : 'grid gap-3 rounded-lg bg-(--raised) p-3'}>
        {@render children()}
      </div>{/if}
  </Accordion.ItemContent>
</Accordion.Item>
