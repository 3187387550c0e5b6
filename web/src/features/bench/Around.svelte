<!-- Operations that wait (soak, dry), of every run at the bench, side by side; and what must be done soon. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { api, type Run } from '../../api/client';
  import { p } from '../../app/router';
  import type { BenchRun } from './run.svelte';
  import { clock } from '../../units/units';

  interface Props {
    bench: BenchRun;
    /** Little room: the most urgent alone, which opens the rest. */
    short: boolean;
    onopen: () => void;
  }
  let { bench, short, onopen }: Props = $props();
  let others = $state.raw<Run[]>([]);
  let asked = $state(performance.now());
  let now = $state(performance.now());

  onMount(() => {
    const ask = () =>
      api.runs().then(
        (open) => {
          others = open.filter((one) => one.id !== bench.run.id);
          asked = performance.now();
        },
        () => undefined,
      );
    void ask();
    const again = setInterval(ask, 10_000);
    const tick = setInterval(() => (now = performance.now()), 500);
    return () => {
      clearInterval(again);
      clearInterval(tick);
    };
  });

  const timers = $derived(
    [bench.run, ...others].flatMap((run) => {
      const ours = run.id === bench.run.id;
      const since = ours ? bench.since : (now - asked) / 1000;
      return run.waiting
        .filter((one) => one.since_s !== null || one.within_s !== null)
        .map((one) => {
          const whole = one.operation.waiting_minutes * 60;
          const left = one.since_s !== null ? whole - one.since_s - since : (one.within_s ?? 0) - since;
          return {
            key: `${run.id}.${one.operation.id}`,
            label: one.operation.label,
            title: ours ? null : run.title,
            id: run.id,
            left,
            soon: one.since_s === null,
          };
        });
    }),
  );
</script>

{#snippet left(one: (typeof timers)[number])}
  <b class="num mono"
    >{one.soon ? (one.left > 0 ? `within ${clock(one.left)}` : 'at once') : one.left > 0 ? clock(one.left) : 'ready'}</b
  >
{/snippet}

{#if timers.length && short}
  {@const first = timers.reduce((a, b) => (b.left < a.left ? b : a))}
  <button class="timer one" class:over={first.left <= 0} onclick={onopen}>
    <span class="truncate">{first.title ? `${first.title}: ` : ''}{first.label}</span>
    {@render left(first)}{timers.length > 1 ? `, ${timers.length - 1} more` : ''} <kbd>T</kbd>
  </button>
{:else if timers.length}
  <ul class="flex flex-wrap gap-2" aria-label="Waiting">
    {#each timers as one (one.key)}
      <li class="timer" class:over={one.left <= 0}>
        {#if one.title}<a class="underline" href={p('/bench/:id', { params: { id: String(one.id) } })}>{one.title}</a
          >:{/if}
        {one.label}
        {@render left(one)}
      </li>
    {/each}
  </ul>
{/if}

<style>
  .timer {
    border: 1px solid var(--line);
    border-radius: 8px;
    background: var(--card);
    padding: 0.3rem 0.8rem;
    font-size: 1.1rem;
  }
  .one {
    display: flex;
    min-width: 0;
    max-width: 16rem;
    min-height: 44px;
    align-items: center;
    gap: 0.4rem;
    font-size: 0.9rem;
    white-space: nowrap;
    cursor: pointer;
  }
  .one b,
  .one kbd {
    flex-shrink: 0;
  }
  .timer.over {
    background: var(--t1);
    color: #191b1e;
  }
</style>
