<!-- How much may come off: metal, or what a coat has to spare. -->
<script lang="ts">
  import type { Face } from '../../api/client';
  import Either from '../../ui/Either.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import { shown } from '../../units/shown.svelte';
  import type { JobDraft } from './draft.svelte';

  let { draft, face }: { draft: JobDraft; face: Face } = $props();
  const way = $derived(face.coat_um ? 'coat' : face.limit_um ? 'limit' : 'none');

  function choose(next: 'none' | 'limit' | 'coat') {
    const clear = { limit_um: undefined, coat_um: undefined, keep_um: undefined };
    draft.changeFace(
      next === 'limit' ? { ...clear, limit_um: 100 } : next === 'coat' ? { ...clear, coat_um: 45, keep_um: 30 } : clear,
    );
  }
</script>

<div class="grid gap-1.5">
  <span class="small dim">May come off</span>
  <Either
    label="May come off"
    value={way}
    options={[
      { id: 'none', label: 'No limit' },
      { id: 'limit', label: 'At most' },
      { id: 'coat', label: 'Within a coat' },
    ]}
    onchange={choose}
  />
  {#if way === 'limit'}
    <NumberField
      label="At most"
      value={face.limit_um}
      quantity="depth"
      onchange={(limit_um) => draft.changeFace({ limit_um })}
    />
  {:else if way === 'coat'}
    <div class="grid grid-cols-2 gap-2">
      <NumberField
        label="Coat is"
        value={face.coat_um}
        quantity="depth"
        onchange={(coat_um) => draft.changeFace({ coat_um })}
      />
      <NumberField
        label="Must stay"
        value={face.keep_um}
        quantity="depth"
        onchange={(keep_um) => draft.changeFace({ keep_um })}
      />
    </div>
    {#each draft.faults.filter((fault) => fault.message.includes('keep_um')) as fault (fault.message)}
      <p class="small text-(--stop)">What must stay has to be less than the coat</p>
    {:else}
      <p class="small dim">
        {shown.say((face.coat_um ?? 0) - (face.keep_um ?? 0), 'depth')} to spare. Measure it, in several places.
      </p>
    {/each}
  {/if}
</div>
