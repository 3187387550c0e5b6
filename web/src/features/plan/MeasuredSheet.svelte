<!-- A measured profile as the found state of a face. -->
<script lang="ts">
  import { api, type Measured } from '../../api/client';
  import ProfileChart from '../../charts/ProfileChart.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import MeasuredFile from '../../ui/MeasuredFile.svelte';
  import { shown } from '../../units/shown.svelte';
  import { figures } from '../../units/units';

  interface Props {
    open: boolean;
    onuse: (depth: { likely: number; worst: number }) => void;
  }
  let { open = $bindable(), onuse }: Props = $props();
</script>

{#snippet shown_(measured: Measured, name: string)}
  {#if measured.kind === 'profile'}
    <div class="mt-3 grid gap-2">
      <ProfileChart
        profile={measured.profile as [number, number][]}
        bearing={measured.bearing as [number, number][]}
        label="{name}: Ra {shown.say(measured.Ra_um, 'roughness')}, Rz {shown.say(measured.Rz_um, 'depth')}"
      />
      <p class="num">
        Ra {shown.say(measured.Ra_um, 'roughness', 3)}, Rz {shown.say(measured.Rz_um, 'depth', 3)}, Rt {shown.say(
          measured.Rt_um,
          'depth',
          3,
        )}, Rk {shown.say(measured.Rk_um, 'depth', 3)}, Rpk {shown.say(measured.Rpk_um, 'depth', 3)}, Rvk {shown.say(
          measured.Rvk_um,
          'depth',
          3,
        )}
      </p>
      <p class="small dim">
        Cut-off {shown.say(measured.lambda_c_mm, 'length')} ({measured.cut_off_chosen
          ? `by ISO 4288${measured.cut_off_by_spacing ? ', by the spacing of marks that repeat' : ''}`
          : 'as asked'}){measured.lambda_s_um ? `, lambda-s ${shown.say(measured.lambda_s_um, 'depth')}` : ''}, Gaussian
        filter, form of degree {measured.form_degree}, {measured.sections} sections over {shown.say(
          measured.evaluation_mm,
          'length',
        )}.
      </p>
      <button
        class="main-button justify-self-start"
        onclick={() => {
          onuse({ likely: measured.Rz_um, worst: Math.max(measured.Rz_um, measured.Rt_um) });
          open = false;
        }}>Use this depth: {shown.say(measured.Rz_um, 'depth')}, at worst {shown.say(measured.Rt_um, 'depth')}</button
      >
    </div>
  {:else}
    <p class="mt-3 num">
      A map of {measured.rows} by {measured.columns} points: Sa {shown.say(measured.Sa_um, 'roughness', 3)}, Sq {shown.say(
        measured.Sq_um,
        'roughness',
        3,
      )}, Sz {shown.say(measured.Sz_um, 'depth', 3)}, Sdr {figures(measured.Sdr)} %.
    </p>
    <button
      class="main-button mt-2"
      onclick={() => {
        onuse({ likely: measured.Sz_um, worst: measured.Sz_um });
        open = false;
      }}>Use this depth: {shown.say(measured.Sz_um, 'depth')}</button
    >
  {/if}
{/snippet}

<Dialog bind:open title="From a measured profile" wide>
  <MeasuredFile read={api.measure} shown={shown_} />
</Dialog>
