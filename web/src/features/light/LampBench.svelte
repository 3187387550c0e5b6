<!-- Two patches side by side under one lamp: what each is, how far a step has come, and how to look at them. -->
<script lang="ts">
  import { choices } from '../../api/catalogue.svelte';
  import { api, type Asked, type PatchShown } from '../../api/client';
  import { atFirst, type View } from '../../gl/lamp';
  import { Answer } from '../../ui/answer.svelte';
  import Choice from '../../ui/Choice.svelte';
  import Either from '../../ui/Either.svelte';
  import Patch from './Patch.svelte';
  import PatchFields from './PatchFields.svelte';

  let material = $state('naval-brass');
  let turned = $state.raw<View | null>(null);
  const view = $derived(turned ?? atFirst(choices.all?.light ?? {}));
  let left = $state.raw<Partial<Asked>>({ after: 'P120', then: 'P240', share: 0.25 });
  let right = $state.raw<Partial<Asked>>({ after: 'P120', then: 'P240', share: 1 });
  const leftPatch = new Answer<PatchShown>();
  const rightPatch = new Answer<PatchShown>();

  $effect(() => leftPatch.ask(api.lightPatch({ material, ...left }), true));
  $effect(() => rightPatch.ask(api.lightPatch({ material, ...right }), true));
  const SLIDERS = [
    { of: 'height', min: 4, max: 85, step: 1, label: (now: number) => `Lamp, height ${Math.round(now)}°` },
    { of: 'direction', min: 0, max: 359, step: 1, label: (now: number) => `Lamp, from ${Math.round(now)}°` },
    { of: 'tiltX', min: -12, max: 12, step: 1, label: (now: number) => `Tilt to the side, ${now}°` },
    { of: 'tiltY', min: -12, max: 12, step: 1, label: (now: number) => `Tilt to the eye, ${now}°` },
    { of: 'magnify', min: 1, max: 8, step: 0.5, label: (now: number) => `Loupe, ${now.toFixed(1)} times` },
  ] as const;
  const set = (change: Partial<View>) => (turned = { ...view, ...change });
</script>

<div class="grid gap-4 lg:grid-cols-[15rem_minmax(0,1fr)]">
  <section class="panel grid content-start gap-3 p-4" aria-label="How to look">
    <Choice
      label="Material"
      value={material}
      options={choices.all?.materials ?? []}
      onchange={(id) => (material = id)}
    />
    {#each SLIDERS as one (one.of)}
      <label>
        <span class="small dim block">{one.label(view[one.of])}</span>
        <input
          class="w-full"
          type="range"
          min={one.min}
          max={one.max}
          step={one.step}
          value={view[one.of]}
          oninput={(event) => set({ [one.of]: Number(event.currentTarget.value) })}
        />
      </label>
    {/each}
    <Either
      label="Mirror test"
      value={view.mirror}
      options={[
        { id: 'none', label: 'Off' },
        { id: 'grid', label: 'Grid' },
        { id: 'bulb', label: 'Bulb' },
      ]}
      onchange={(mirror) => set({ mirror })}
    />
    <p class="small dim">
      Drag on a patch, or use the arrow keys on it: up and down for the height, left and right around. In the mirror
      test roughness makes the picture dull, and ripple bends its lines.
    </p>
    <button class="plain-button small" onclick={() => (turned = null)}>Reset</button>
  </section>
  <div class="grid gap-4 sm:grid-cols-2">
    {#each [{ at: left, answer: leftPatch, label: 'This', change: (next: Partial<Asked>) => (left = next) }, { at: right, answer: rightPatch, label: 'Beside', change: (next: Partial<Asked>) => (right = next) }] as side (side.label)}
      <div class="grid content-start gap-2">
        <PatchFields asked={side.at} onchange={side.change} />
        {#if side.answer.trouble}<p class="text-(--stop)" role="alert">{side.answer.trouble}</p>{/if}
        {#if side.answer.value}
          <Patch patch={side.answer.value} label={side.label} {view} onmove={(next) => (turned = next)} />
        {:else}
          <p class="dim" role="status">drawing …</p>
        {/if}
      </div>
    {/each}
  </div>
</div>
