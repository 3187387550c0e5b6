<!-- A starting kit as a picture with its machines; ticked, the rack is filled from it. -->
<script lang="ts">
  import type { Catalogue } from '../../api/client';
  import MachineDrawing from '../../ui/MachineDrawing.svelte';

  interface Props {
    kit: Catalogue['kits'][number];
    machines: string[];
    ticked: boolean;
    onchange: (ticked: boolean) => void;
  }
  let { kit, machines, ticked, onchange }: Props = $props();
</script>

<label class="panel flex touch cursor-pointer items-center gap-3 p-3" class:on={ticked}>
  <input
    type="checkbox"
    class="size-6 shrink-0"
    checked={ticked}
    onchange={(event) => onchange(event.currentTarget.checked)}
  />
  <span class="flex shrink-0">
    {#each machines.slice(0, 2) as machine (machine)}<MachineDrawing {machine} size={48} />{/each}
  </span>
  <span><b class="block">{kit.label}</b><span class="small dim">{kit.about}</span></span>
</label>

<style>
  .on {
    border-color: var(--go);
    background: var(--go-soft);
  }
  label:has(:focus-visible) {
    outline: 3px solid var(--t5);
    outline-offset: 2px;
  }
</style>
