<!-- The drawing beside a word of the trade: a face cut through or seen from above, not to scale. -->
<script lang="ts">
  import type { TermId } from './terms';
  let { of }: { of: TermId } = $props();
  const METAL = 'var(--line)';
</script>

<svg
  width="220"
  height="76"
  viewBox="0 0 220 76"
  aria-hidden="true"
  fill="none"
  stroke="var(--ink)"
  stroke-width="1.6"
  stroke-linejoin="round"
>
  {#if of === 'jump'}
    <path d="M6 12h54l8 40 8-40h8l5 26 5-26h8v62H6z" fill={METAL} stroke="none" />
    <path d="M6 12h54l8 40 8-40h8l5 26 5-26h8" />
    <path d="M120 12h10l4 12 4-12h10l4 12 4-12h10l4 12 4-12h10l4 12 4-12h10" />
    <path d="M104 40h14m-5-4 5 4-5 4" stroke="var(--t5)" />
  {:else if of === 'lay'}
    {#each [12, 22, 32, 42, 52, 62] as y (y)}<path d="M8 {y}h88" />{/each}
    {#each [130, 146, 162, 178, 194] as x (x)}
      <path d="M{x} 10q9 14 0 28t0 28" stroke="var(--dim)" />
    {/each}
    <path d="M34 70h34m-5-4 5 4-5 4" stroke="var(--t5)" />
  {:else if of === 'reach'}
    <path d="M6 60V34h60v26zM88 60V14h18v30h24V14h18v46zM170 60V14l36 46z" fill={METAL} />
    <circle cx="36" cy="24" r="9" stroke="var(--t5)" />
    <circle cx="118" cy="35" r="7" stroke="var(--t5)" />
    <circle cx="196" cy="34" r="9" stroke="var(--t2)" />
  {:else if of === 'removal'}
    <path d="M6 18h40l6 22 6-22h60l6 14 6-14h84v52H6z" fill={METAL} />
    <path d="M6 42h208" stroke="var(--t2)" stroke-dasharray="5 3" />
    <path d="M190 18v24m-4-5 4 5 4-5m-8-14 4-5 4 5" stroke="var(--t5)" />
  {:else if of === 'ripple'}
    <path d="M6 34q17-18 34 0t34 0 34 0 34 0 34 0 34 0v40H6z" fill={METAL} />
    <path d="M40 10h80" stroke="var(--t5)" stroke-width="5" />
  {:else if of === 'spots'}
    <path d="M6 26h80l8 34 8-34h112v44H6z" fill={METAL} />
    <path d="M52 26q42 44 84 0" stroke="var(--t5)" stroke-dasharray="5 3" />
  {:else}
    <path d="M6 56h208" stroke-width="3" />
    <circle cx="20" cy="34" r="7" fill="var(--t1)" stroke="var(--t1)" />
    <path d="M28 37 190 52M28 40l120 14" stroke="var(--t1)" />
    <path d="m104 56 4-7 4 7m30 0 4-7 4 7" />
    <path d="M196 20q8-7 16 0-8 7-16 0" />
    <path d="m196 26-44 22" stroke="var(--dim)" stroke-dasharray="4 3" />
  {/if}
</svg>
