<!-- What a patch is: the marks of a grit or damage of a depth, and how far the next grade has come on it. -->
<script lang="ts">
  import { choices } from '../../api/catalogue.svelte';
  import type { Asked } from '../../api/client';
  import Choice from '../../ui/Choice.svelte';
  import NumberField from '../../ui/NumberField.svelte';

  let { asked, onchange }: { asked: Partial<Asked>; onchange: (asked: Partial<Asked>) => void } = $props();
  const KINDS = [
    { id: 'grade', label: 'Marks of a grit' },
    { id: 'scratches', label: 'Scratches' },
    { id: 'waviness', label: 'Ripple' },
    { id: 'pits', label: 'Pits' },
    { id: 'nick', label: 'A nick' },
  ];
  const kind = $derived(asked.depth_um ? (asked.kind ?? 'scratches') : 'grade');

  function choose(id: string) {
    if (id === 'grade') onchange({ ...asked, kind: 'lay', depth_um: undefined, after: asked.after ?? 'P120' });
    else onchange({ ...asked, kind: id as Asked['kind'], depth_um: asked.depth_um ?? 15, after: undefined });
  }
</script>

<div class="grid grid-cols-2 gap-2">
  <Choice label="Found" value={kind} options={KINDS} onchange={choose} />
  {#if kind === 'grade'}
    <Choice
      label="Left by"
      value={asked.after ?? 'P120'}
      options={choices.papers}
      onchange={(after) => onchange({ ...asked, after })}
    />
  {:else}
    <NumberField
      label="Depth"
      value={asked.depth_um}
      quantity="depth"
      onchange={(depth_um) => onchange({ ...asked, depth_um })}
    />
  {/if}
  <Choice
    label="Then worked with"
    value={asked.then ?? ''}
    options={[{ id: '', label: 'Nothing yet' }, ...choices.papers]}
    onchange={(then) => onchange({ ...asked, then: then || undefined })}
  />
  <label>
    <span class="small dim block">{Math.round((asked.share ?? 1) * 100)} % of its time</span>
    <input
      class="w-full"
      type="range"
      min="0"
      max="100"
      disabled={!asked.then}
      value={(asked.share ?? 1) * 100}
      onchange={(event) => onchange({ ...asked, share: Number(event.currentTarget.value) / 100 })}
    />
  </label>
</div>
