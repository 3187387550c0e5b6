<!-- A roughness profile with its bearing curve beside it: heights on one scale. -->
<script lang="ts">
  import { shown } from '../units/shown.svelte';

  interface Props {
    /** Place in mm, height in um. */
    profile: [number, number][];
    /** Material in per cent, height in um. */
    bearing: [number, number][];
    label: string;
  }
  let { profile, bearing, label }: Props = $props();
  let wide = $state(520); // drawn one to one, so that letters keep their size
  const HIGH = 140;
  const FOOT = 18; // for the length
  const HEAD = 66; // for the heights
  const SIDE = 110;
  const top = $derived(Math.max(...profile.map((point) => point[1])));
  const bottom = $derived(Math.min(...profile.map((point) => point[1])));
  const end = $derived(profile.at(-1)?.[0] ?? 1);
  const y = (z: number) => 6 + ((top - z) / (top - bottom || 1)) * (HIGH - 12);
  const line = $derived(
    profile
      .map(([x, z]) => `${(HEAD + (x / end) * (wide - SIDE - HEAD - 12)).toFixed(1)},${y(z).toFixed(1)}`)
      .join(' '),
  );
  const curve = $derived(
    bearing.map(([share, z]) => `${(wide - SIDE + (share / 100) * SIDE).toFixed(1)},${y(z).toFixed(1)}`).join(' '),
  );
</script>

{#snippet height(z: number)}
  <text x={HEAD - 6} y={y(z) + 4} font-size="12" text-anchor="end" fill="var(--dim)"
    >{z > 0 ? '+' : ''}{shown.bare(z, 'roughness', 2)}</text
  >
{/snippet}

<div bind:clientWidth={wide}>
  <svg viewBox="0 0 {wide} {HIGH + FOOT}" class="w-full" role="img" aria-label={label}>
    <line x1={HEAD} x2={wide - SIDE - 12} y1={y(0)} y2={y(0)} stroke="var(--line)" />
    <polyline points={line} fill="none" stroke="var(--t5)" stroke-width="1" />
    <rect x={wide - SIDE} y="0" width={SIDE} height={HIGH} fill="none" stroke="var(--line)" />
    <polyline points={curve} fill="none" stroke="var(--t3)" stroke-width="2" />
    {@render height(top)}
    <text x={HEAD - 6} y={y(0) + 4} font-size="12" text-anchor="end" fill="var(--dim)">0 {shown.unit('roughness')}</text
    >
    {@render height(bottom)}
    <text x={HEAD} y={HIGH + FOOT - 4} font-size="12" fill="var(--dim)">{shown.say(end, 'length')} long</text>
    <text x={wide} y={HIGH + FOOT - 4} font-size="12" text-anchor="end" fill="var(--dim)">0 to 100 % material</text>
  </svg>
</div>
