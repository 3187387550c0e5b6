<!-- How a person has come on: the rating over the weeks, and how each kind of question is answered. -->
<script lang="ts">
  import type { Progress } from '../../api/client';

  let { progress, person }: { progress: Progress; person: string } = $props();
  const WIDE = 420;
  const HIGH = 120;
  const ratings = $derived(progress.weeks.map((week) => week.rating));
  const low = $derived(Math.min(900, ...ratings) - 50);
  const high = $derived(Math.max(1100, ...ratings) + 50);
  const points = $derived(
    progress.weeks.map((week, at) => ({
      week,
      x: progress.weeks.length > 1 ? 30 + (at * (WIDE - 60)) / (progress.weeks.length - 1) : WIDE / 2,
      y: HIGH - 20 - ((week.rating - low) / (high - low)) * (HIGH - 40),
    })),
  );
  const day = (at: string) => new Date(at).toLocaleDateString(undefined, { dateStyle: 'medium' });
</script>

<section class="panel p-5" aria-label="Progress">
  <h2 class="!text-base">{person || 'You'}: {progress.rating} points</h2>
  {#if progress.answers === 0}
    <p class="dim">Nothing answered yet. Everybody begins at 1000; harder questions bring more.</p>
  {:else}
    <p class="dim">{progress.answers} answers so far.</p>
    <svg viewBox="0 0 {WIDE} {HIGH}" class="mt-2 w-full" role="img" aria-label="Points over the weeks">
      <line x1="0" x2={WIDE} y1={HIGH - 20} y2={HIGH - 20} stroke="var(--line)" />
      <polyline
        points={points.map((one) => `${one.x},${one.y}`).join(' ')}
        fill="none"
        stroke="var(--t5)"
        stroke-width="2.5"
      />
      {#each points as one (one.week.begins)}
        <circle cx={one.x} cy={one.y} r="5" fill="var(--t5)" />
        <text x={one.x} y={one.y - 10} text-anchor="middle" font-size="12" fill="var(--ink)">{one.week.rating}</text>
      {/each}
      {#if points.length}
        <text x="4" y={HIGH - 4} font-size="11" fill="var(--dim)">week of {day(points[0]!.week.begins)}</text>
      {/if}
    </svg>
    <ul class="small mt-2 grid gap-0.5">
      {#each progress.kinds as one (one.kind)}
        <li class="num">{one.label} {one.right} of {one.answers}</li>
      {/each}
    </ul>
  {/if}
</section>
