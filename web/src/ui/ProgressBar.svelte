<!-- How far something is that takes a while. -->
<script lang="ts">
  import { Progress } from '@skeletonlabs/skeleton-svelte';

  interface Props {
    label: string;
    /** Null: nobody knows how far it is. */
    value: number | null;
    max: number;
    class?: string;
  }
  let { label, value, max, class: looks = '' }: Props = $props();
</script>

<Progress {value} {max} class={looks}>
  <Progress.Label class="sr-only">{label}</Progress.Label>
  <Progress.Track><Progress.Range class="bg-(--go)!" /></Progress.Track>
</Progress>
