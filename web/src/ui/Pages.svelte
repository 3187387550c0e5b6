<!-- One page after the other, of a list or of days. -->
<script lang="ts">
  import { Pagination } from '@skeletonlabs/skeleton-svelte';
  import ChevronLeft from '@lucide/svelte/icons/chevron-left';
  import ChevronRight from '@lucide/svelte/icons/chevron-right';

  interface Props {
    count: number;
    size: number;
    /** Counted from 1. */
    page: number;
    said: string;
    before: string;
    next: string;
    onpage: (page: number) => void;
  }
  let { count, size, page, said, before, next, onpage }: Props = $props();
</script>

<Pagination
  class="flex w-fit items-center gap-1 border-0! p-0!"
  {count}
  pageSize={size}
  {page}
  onPageChange={({ page }) => onpage(page)}
>
  <Pagination.PrevTrigger class="plain-button touch px-3!" aria-label={before}
    ><ChevronLeft size={16} aria-hidden="true" /></Pagination.PrevTrigger
  >
  <span class="num px-2">{said}</span>
  <Pagination.NextTrigger class="plain-button touch px-3!" aria-label={next}
    ><ChevronRight size={16} aria-hidden="true" /></Pagination.NextTrigger
  >
</Pagination>
