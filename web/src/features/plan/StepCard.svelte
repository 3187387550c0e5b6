<!-- Everything needed to do one step. -->
<script lang="ts">
  import X from '@lucide/svelte/icons/x';
  import { choices } from '../../api/catalogue.svelte';
  import FaceSketch from '../../charts/FaceSketch.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import SpeedGauge from '../../charts/SpeedGauge.svelte';
  import { temperColour } from '../../charts/temper';
  import Term from '../../ui/Term.svelte';
  import Turning from '../../charts/Turning.svelte';
  import { shown } from '../../units/shown.svelte';
  import { clock, duration, figures, usedUp, whole } from '../../units/units';
  import { api } from '../../api/client';
  import LightTile from '../../ui/LightTile.svelte';
  import type { JobDraft } from './draft.svelte';
  import type { StepTiles } from './tiles.svelte';
  import Scrolling from '../../ui/Scrolling.svelte';

  const LAYS = {
    across: 'across the marks before',
    along: 'along, one direction, never turned',
    none: 'no direction: keep it moving every way',
  };
  interface Props {
    draft: JobDraft;
    tiles: StepTiles;
    onclose: () => void;
    ongoback: () => void;
    onwhy: () => void;
    onswap: () => void;
  }
  let { draft, tiles, onclose, ongoback, onwhy, onswap }: Props = $props();
  const drawing = $derived(choices.machine(draft.step?.machine ?? '')?.drawing);
  const step = $derived(draft.step);
  const tile = $derived(tiles.after(draft.stepAt + 1));
  const fit = $derived(draft.facePlan?.fit?.answer);
  const stop = $derived(fit?.stop_sheet[draft.stepAt]);
  const somePlaces = $derived(draft.facePlan?.steps.some((one) => one.zone) ?? false);
  const count = $derived(draft.facePlan?.steps.length ?? 0);
</script>

<Scrolling
  as="aside"
  label="Step in hand"
  class={['panel flex min-h-0 flex-col gap-2.5 p-4 ', draft.stale && 'stale']}
  aria-busy={draft.stale || !draft.plan}
>
  {#if step}
    <div>
      <div class="flex items-center justify-between gap-2">
        <span class="small dim">Step {draft.stepAt + 1} of {count}</span>
        <button class="plain-button !min-h-8 !p-1" aria-label="Close the step" onclick={onclose}><X size={16} /></button
        >
      </div>
      <div class="text-[1.27rem] leading-tight font-bold" style:color={temperColour(step.grain_um)}>{step.label}</div>
      <div class="small dim">{step.machine_label}</div>
    </div>
    {#if tile}<LightTile
        src="/api/light/{tile.key}.webp"
        label="After {tile.label}"
        words={() => api.lightWords(tile.key)}
      />{/if}
    {#if somePlaces && draft.face && draft.facePlan}
      <FaceSketch
        face={draft.face}
        areaCm2={draft.facePlan.area_cm2}
        steps={draft.facePlan.steps}
        selected={draft.stepAt}
      />
    {/if}
    {#if step.speed_band_m_s}
      <SpeedGauge speed={step.speed_m_s} band={step.speed_band_m_s} limit={step.speed_limit_m_s} />
    {/if}
    <dl class="grid grid-cols-[5.2rem_1fr] gap-x-2.5 gap-y-1 text-[0.93rem]">
      {#if step.zone}
        <dt>Where</dt>
        <dd>
          <b>{step.zone.spots.join(', ')}</b>{step.zone.band ? ' in bands along the lay' : ''}, {step.zone.margins_mm
            .map((margin) => shown.say(margin, 'length'))
            .join(' and ')} around, {shown.say(step.zone.area_cm2, 'area')} in all
        </dd>
      {:else if somePlaces}
        <dt>Where</dt>
        <dd><b>Over everything</b>{step.goes_on ? ', with the tool that is on already' : ''}</dd>
      {/if}
      <dt>Speed</dt>
      <dd>
        {#if step.rpm !== null}<b class="num">{whole(step.rpm)} rev/min</b>{step.diameter_mm &&
          !step.new_diameter_mm &&
          step.speed_band_m_s
            ? ` on ${shown.say(step.diameter_mm, 'length', 3)}, `
            : ', '}{/if}<span class="num">{shown.say(step.speed_m_s, 'speed', 3)}</span>
      </dd>
      {#if step.new_diameter_mm && step.speed_band_m_s}
        <dt class="self-center">Diameter now</dt>
        <dd class="w-28">
          <NumberField
            label="Diameter of the wheel as it is now"
            hideLabel
            lazy
            value={step.diameter_mm}
            quantity="length"
            faults={draft.faultsAt(`diameters_mm.${step.tool}`)}
            onchange={(mm) => draft.wearDown(step.tool, mm, step.new_diameter_mm ?? mm)}
          />
        </dd>
      {/if}
      <dt>Lay</dt>
      <dd>{LAYS[step.lay]}</dd>
      <dt>Press</dt>
      <dd class:text-(--stop)={step.pressure === 'light'}>
        {step.pressure === 'light' ? 'light only' : 'light to medium'}, {shown.say(step.force_n, 'force')}{step.wet
          ? ', wet'
          : ''}
      </dd>
      <dt>Time</dt>
      <dd class="num">
        {duration(step.minutes)}, {duration(step.cut_minutes)} of it cutting{step.minutes_high
          ? `; allow up to ${duration(step.minutes_high)}`
          : ''}
      </dd>
      <dt>Takes off</dt>
      <dd class="num">{shown.say(step.takes_um, 'depth')}, leaves {shown.say(step.leaves_um, 'depth')}</dd>
      {#if !draft.face?.edge}
        <dt>Clearance</dt>
        <dd>{figures(step.clearance)} × the marks of {shown.say(step.from_um, 'depth')}</dd>
      {/if}
      {#if step.longest_stay_s !== null}
        <dt>Heat</dt>
        <dd>at most <b class="num">{figures(step.longest_stay_s)} s</b> on one spot</dd>
      {/if}
      {#if step.rests}
        <dt>Rests</dt>
        <dd>
          <b class="num">{step.rests.count}</b> of {duration(step.rests.seconds / 60)}, the first after {duration(
            step.rests.after_seconds / 60,
          )}: {step.rests.by_hand ? 'too hot to hold' : 'too hot'}
        </dd>
      {/if}
      {#if step.marks_said}
        <dt>Leaves</dt>
        <dd class="text-(--stop)">
          {shown.tell(step.marks_said)}{step.stays_um
            ? `, ${shown.say(step.stays_um, 'depth')} deep: out of its reach`
            : ''}
        </dd>
      {/if}
      <dt>Uses</dt>
      <dd>{usedUp(step.spent.worn < 0.87 ? step.spent.worn : step.spent.count, step.spent.unit)}</dd>
    </dl>
    <div class="flex gap-1.5">
      <button class="plain-button small flex-1 !px-1" onclick={onswap}>Swap <kbd class="dim">S</kbd></button>
      <button class="plain-button small flex-1 !px-1" disabled={count < 2} onclick={() => draft.leaveOut()}
        >Leave out</button
      >
      <button
        class="plain-button small flex-1 !px-1"
        aria-pressed={draft.locked(step.tool)}
        class:!border-(--ink)={draft.locked(step.tool)}
        onclick={() => draft.toggleLock()}
        >{draft.locked(step.tool) ? 'Locked' : 'Lock'} <kbd class="dim">L</kbd></button
      >
    </div>
    <button class="small self-start font-semibold underline" onclick={onwhy}
      >Show the sums <kbd class="dim">Y</kbd></button
    >
    {#if stop}
      <div class="rounded-lg border border-(--line) bg-(--raised) px-3 py-2" role="group" aria-label="Stop sheet">
        <h2>Read after it</h2>
        <p class="num text-xl font-bold">{shown.say(stop.read_mm, 'size', 6)}</p>
        {#if draft.stepAt === 0 && fit?.next.seconds}
          <p class="small">
            First work {clock(fit.next.seconds)}, then read it again: {shown.tell(fit.next.reason_said)}
          </p>
        {/if}
      </div>
    {/if}
    <div class="rounded-lg border border-(--line) bg-(--raised) px-3 py-2">
      <h2 class="flex items-center gap-1.5">
        {draft.facePlan?.fit ? 'Gauge check' : 'Light check'}
        {#if !draft.facePlan?.fit}<Term of="light-check" />{/if}
      </h2>
      <p class="small">{step.check}</p>
      <button class="small mt-1 font-semibold underline" onclick={ongoback}
        >A mark is still there <kbd class="dim">G</kbd></button
      >
    </div>
    {#if drawing}
      <figure class="flex items-center gap-3">
        <Turning {drawing} colour={temperColour(step.grain_um)} />
        <figcaption class="small">{drawing.where}</figcaption>
      </figure>
    {/if}
    <ul class="small grid gap-1 rounded-lg bg-(--stop-soft) px-3 py-2" aria-label="Cautions">
      {#each step.cautions as caution (caution)}<li>{caution}</li>{/each}
    </ul>
    {#if step.advice?.length}
      <ul class="small grid gap-1 px-3" aria-label="Good to know">
        {#each step.advice as one (one)}<li>{one}</li>{/each}
      </ul>
    {/if}
  {:else}
    <p class="dim">
      {#if !draft.plan}{draft.trouble ? 'The plan waits.' : 'Working out the plan …'}
      {:else}{draft.facePlan?.possible === false ? 'No step can be offered yet.' : 'No steps for this face.'}{/if}
    </p>
  {/if}
  {#each [...(draft.plan?.cautions ?? []), ...(draft.plan?.advice ?? [])] as one (one)}<p class="small dim">
      {one}
    </p>{/each}
</Scrolling>

<style>
  dt {
    color: var(--dim);
  }
</style>
