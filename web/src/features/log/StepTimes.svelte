<!-- Every step of every piece: planned and as it was. Steps of all pieces stand in one row. -->
<script lang="ts">
  import type { RunPage } from '../../api/client';

  let { steps }: { steps: RunPage['steps'] } = $props();
  const key = (one: RunPage['steps'][number]) => `${one.face}.${one.route}.${one.step}`;
  const rows = $derived([...new Set(steps.filter((one) => one.outcome !== 'dropped').map(key))]);
  const pieces = $derived([...new Set(steps.map((one) => one.piece))]);
  const of = (row: string, piece: number) => steps.find((one) => key(one) === row && one.piece === piece);
  const clock = (seconds: number) => `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`;
  const SAID: Record<string, string> = { back: ' went back', skipped: 'left out', open: '–', dropped: '', gone: '' };

  function cell(row: string, piece: number): string {
    const one = of(row, piece);
    if (!one || one.outcome === 'dropped') return '';
    const time = one.outcome === 'gone' || one.outcome === 'back' ? clock(one.seconds) : '';
    return `${time}${SAID[one.outcome] ?? ''}${one.corrected ? ' put right' : ''}`;
  }
</script>

<!-- Wide for a large batch, so the keyboard must reach it. -->
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="overflow-x-auto" tabindex="0" role="region" aria-label="Step by step">
  <table class="small w-full">
    <thead class="dim text-left">
      <tr
        ><th>Step</th><th class="num">Planned</th>{#each pieces as piece (piece)}<th class="num"
            >{pieces.length > 1 ? `Piece ${piece}` : 'As it was'}</th
          >{/each}</tr
      >
    </thead>
    <tbody>
      {#each rows as row (row)}
        {@const first = steps.find((one) => key(one) === row)}
        {#if first}
          <tr>
            <td>{first.face}{first.route ? ', way back' : ''}: {first.label}</td>
            <td class="num">{clock(first.planned_s)}</td>
            {#each pieces as piece (piece)}<td class="num">{cell(row, piece)}</td>{/each}
          </tr>
        {/if}
      {/each}
    </tbody>
  </table>
</div>

<style>
  th,
  td {
    padding: 0.2rem 0.8rem 0.2rem 0;
    border-bottom: 1px solid var(--line);
    white-space: nowrap;
  }
</style>
