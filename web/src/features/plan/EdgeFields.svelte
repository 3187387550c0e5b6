<!-- An edge of the part: how long, what becomes of it, and which faces are beside it. -->
<script lang="ts">
  import { choices } from '../../api/catalogue.svelte';
  import type { Edge } from '../../api/client';
  import Choice from '../../ui/Choice.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import type { JobDraft } from './draft.svelte';

  let { draft, edge }: { draft: JobDraft; edge: Edge } = $props();
  const START: Record<Exclude<Edge['wanted'], 'sharp'>, number> = { break: 0.3, radius: 1 };
  const faces = $derived(draft.job.faces.filter((other) => !other.edge));

  const change = (some: Partial<Edge>) => draft.changeFace({ edge: { ...edge, ...some } });
  const become = (wanted: Edge['wanted']) =>
    change({ wanted, size_mm: wanted === 'sharp' ? undefined : (edge.size_mm ?? START[wanted]) });

  function beside(face: string, is: boolean) {
    const others = (edge.next_to ?? []).filter((one) => one !== face);
    change({ next_to: is ? [...others, face] : others });
  }
</script>

<div class="grid grid-cols-2 gap-2">
  <NumberField
    label="Length"
    value={edge.length_mm}
    quantity="length"
    faults={draft.faultsOf('edge.length_mm')}
    onchange={(length_mm) => change({ length_mm })}
  />
  <Choice label="What becomes of it" value={edge.wanted} options={choices.all?.edges ?? []} onchange={become} />
  {#if edge.wanted !== 'sharp'}
    <NumberField
      label={edge.wanted === 'break' ? 'Leg of the break' : 'Radius'}
      value={edge.size_mm}
      quantity="length"
      faults={draft.faultsOf('edge.size_mm')}
      onchange={(size_mm) => change({ size_mm })}
    />
  {/if}
</div>
<fieldset class="grid gap-1">
  <legend class="small dim">Faces beside it</legend>
  {#each faces as { id = '', name } (id)}
    <label class="flex items-center gap-2">
      <input
        type="checkbox"
        checked={edge.next_to?.includes(id) ?? false}
        onchange={(event) => beside(id, event.currentTarget.checked)}
      />
      {name}
    </label>
  {/each}
  {#if edge.wanted === 'sharp'}
    <p class="small dim">Soft wheels get half as much to do on these faces, and every step warns of the edge.</p>
  {/if}
</fieldset>
