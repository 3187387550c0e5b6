<!-- Every step of every piece: planned and as it was. The pieces of a step follow each other, and wrap: nothing is cut off in print. -->
<script lang="ts">
  import CopyTable from '../../ui/CopyTable.svelte';
  import type { RunPage } from '../../api/client';
  import { firstOfEach } from '../../ui/unique';
  import { clock } from '../../units/units';

  type Step = RunPage['steps'][number];
  let { steps }: { steps: Step[] } = $props();
  const key = (one: Step) => `${one.face_id}.${one.route}.${one.step}`;
  const taken = $derived(steps.filter((one) => one.outcome !== 'dropped'));
  /** The first piece that took a step, with all that took it. */
  const rows = $derived(
    firstOfEach(taken, key).map((first) => ({ first, all: taken.filter((one) => key(one) === key(first)) })),
  );
  const several = $derived(new Set(steps.map((one) => one.piece)).size > 1);
  const SAID: Record<Step['outcome'], string> = {
    back: ' went back',
    skipped: 'left out',
    open: '–',
    dropped: '',
    gone: '',
  };
  const time = (seconds: number) => clock(Math.round(seconds)); // as the log says it in words

  function was(one: Step): string {
    const took = one.outcome === 'gone' || one.outcome === 'back' ? time(one.seconds) : '';
    return `${took}${SAID[one.outcome]}${one.corrected ? ' put right' : ''}`;
  }
</script>

<table class="lines small w-full">
  <thead class="dim text-left">
    <tr><th>Step</th><th>Planned</th><th>As it was{several ? ', by piece' : ''}</th></tr>
  </thead>
  <tbody>
    {#each rows as { first, all } (key(first))}
      <tr>
        <td>{first.face}{first.route ? ', way back' : ''}: {first.label}</td>
        <td class="num">{time(first.planned_s)}</td>
        <td>
          <ul class="flex flex-wrap gap-x-3">
            {#each all as one (one.piece)}
              <li class="num whitespace-nowrap">
                {#if several}<span class="dim inline-block min-w-5 text-right" aria-label="piece {one.piece}:"
                    >{one.piece}</span
                  >{/if}
                {was(one)}
              </li>
            {/each}
          </ul>
        </td>
      </tr>
    {/each}
  </tbody>
</table>
<CopyTable />
