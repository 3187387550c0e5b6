<!-- A face cut through, with what is wrong with it: metal below, air above, not to scale. -->
<script lang="ts">
  let { damage }: { damage: string } = $props();

  /** The line of the surface from left to right; the metal lies below it. */
  const LINES: Record<string, string> = {
    scratches: 'M0 14h12l2 9 2-9h14l1.500 5 1.500-5h9l2.500 12 2.500-12h18',
    dents: 'M0 14h18q3-2 6-2 8 16 16 0 3 0 6 2h18',
    gouges: 'M0 14h16l4-4 3 4 9 14 5-14 3-5 4 5h20',
    nicks: 'M0 14h20l4 8 3-8h16l2 6 2-6h17',
    rust: 'M0 15q4-5 8-1 4 6 7 8 5-12 9-9 5 10 8 11 4-14 9-11 4 7 7 8 5-10 8-8 4 3 8 1',
    pits: 'M0 14h10q0 9 4 9t4-9h12q0 13 3 13t3-13h10q0 7 3 7t3-7h12',
    tarnish: 'M0 15h64',
    'heat-tint': 'M0 15h64',
    'orange-peel': 'M0 15q5-6 10-1t11-1 11 2 11-2 11 2 10-1',
    ripple: 'M0 15q8-8 16 0t16 0 16 0 16 0',
    'casting-skin': 'M0 14l4-4 5 6 4-7 6 8 5-6 5 3 6-8 5 9 6-6 5 5 6-7 7 5',
    'tool-marks': 'M0 18q4-9 8 0 4-9 8 0 4-9 8 0 4-9 8 0 4-9 8 0 4-9 8 0 4-9 8 0 4-9 8 0',
    'weld-bead': 'M0 19h18q3-14 14-14t14 14h18',
    solder: 'M0 19h22q1-6 8-7 4-4 8 1 6 1 6 6h20',
    'polish-haze': 'M0 15q2-2 4 0t4 0 4 0 4 0 4 0 4 0 4 0 4 0 4 0 4 0 4 0 4 0 4 0 4 0 4 0',
  };
  const line = $derived(LINES[damage] ?? LINES.scratches!);
</script>

<svg width="64" height="34" viewBox="0 0 64 34" aria-hidden="true">
  <path d="{line}V34H0Z" fill="var(--line)" />
  {#if damage === 'weld-bead' || damage === 'solder'}
    <path d="M0 19h64" stroke="var(--t2)" stroke-width="1.500" stroke-dasharray="3 2" />
  {/if}
  {#if damage === 'tarnish'}<path d="M0 14h64" stroke="var(--t4)" stroke-width="3" />{/if}
  {#if damage === 'heat-tint'}
    <path d="M0 14h22" stroke="var(--t1)" stroke-width="3" />
    <path d="M22 14h20" stroke="var(--t3)" stroke-width="3" />
    <path d="M42 14h22" stroke="var(--t5)" stroke-width="3" />
  {/if}
  {#if damage === 'rust'}<path d={line} fill="none" stroke="var(--t2)" stroke-width="3" />{/if}
  <path d={line} fill="none" stroke="var(--ink)" stroke-width="1.500" />
</svg>
