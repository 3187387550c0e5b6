<!-- A roughness profile with its bearing curve beside it: heights on one scale. -->
<script lang="ts">
  interface Props {
    /** Place in mm, height in um. */
    profile: [number, number][];
    /** Material in per cent, height in um. */
    bearing: [number, number][];
    label: string;
  }
  let { profile, bearing, label }: Props = $props();
  const WIDE = 520;
  const HIGH = 150;
  const SIDE = 110;
  const top = $derived(Math.max(...profile.map((point) => point[1])));
  const bottom = $derived(Math.min(...profile.map((point) => point[1])));
  const end = $derived(profile.at(-1)?.[0] ?? 1);
  const y = (z: number) => 6 + ((top - z) / (top - bottom || 1)) * (HIGH - 12);
  const line = $derived(
    profile.map(([x, z]) => `${((x / end) * (WIDE - SIDE - 12)).toFixed(1)},${y(z).toFixed(1)}`).join(' '),
  );
  const curve = $derived(
    bearing.map(([share, z]) => `${(WIDE - SIDE + (share / 100) * SIDE).toFixed(1)},${y(z).toFixed(1)}`).join(' '),
  );
</script>

<svg viewBox="0 0 {WIDE} {HIGH}" class="w-full" role="img" aria-label={label}>
  <line x1="0" x2={WIDE - SIDE - 12} y1={y(0)} y2={y(0)} stroke="var(--line)" />
  <polyline points={line} fill="none" stroke="var(--t5)" stroke-width="1" />
  <rect x={WIDE - SIDE} y="0" width={SIDE} height={HIGH} fill="none" stroke="var(--line)" />
  <polyline points={curve} fill="none" stroke="var(--t3)" stroke-width="2" />
  <text x={WIDE - SIDE + 4} y={HIGH - 4} font-size="11" fill="var(--dim)">0 to 100 % material</text>
</svg>
