<!-- The faces of a run: how each came, and what it became. -->
<script lang="ts">
  import CopyTable from '../../ui/CopyTable.svelte';
  import type { RunPage } from '../../api/client';
  import { foundSaid, wantedSaid } from '../../api/face-said';
  import { shown } from '../../units/shown.svelte';

  let { faces, well }: { faces: RunPage['faces']; well: boolean | null } = $props();
</script>

<table class="lines w-full">
  <thead class="dim small text-left">
    <tr
      ><th>Face</th><th>It came with</th><th>{well ? 'It became' : 'Wanted'}</th><th>Area</th><th
        >Planned to come off</th
      ></tr
    >
  </thead>
  <tbody>
    {#each faces as { face, area_cm2, metal_um } (face.id)}
      <tr>
        <th class="text-left">{face.name}</th>
        <td class="num">{foundSaid(face)}</td>
        <td>{wantedSaid(face)}</td>
        <td class="num">{shown.say(area_cm2, 'area')}</td>
        <td class="num">at most {shown.say(metal_um, 'depth')}</td>
      </tr>
    {/each}
  </tbody>
</table>
<CopyTable />
