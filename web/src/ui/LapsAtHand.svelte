<!-- Which lap of the rack can do the work, how far to set it out, and why another cannot; and the one to make. -->
<script lang="ts">
  import { shown } from '../units/shown.svelte';
  import type { Sentence } from '../units/sentence';
  import { Answer } from './answer.svelte';

  interface Lap {
    item: number;
    name: string;
    able: boolean;
    said: Sentence;
    set_out: number | null;
    by: string;
    worn_um: number | null;
  }
  interface Props {
    ask: () => Promise<Lap[]>;
    /** The query of the drawing of a lap to make. */
    work: string;
  }
  let { ask, work }: Props = $props();
  const laps = new Answer<Lap[]>();
  $effect(() => laps.ask(ask(), true));
  const drawing = $derived(`${work}&inch=${shown.system === 'inch'}`);

  function howFar(lap: Lap): string {
    if (lap.set_out === null) return 'Calibrate it once: measure it, turn its screw, measure it again.';
    return lap.by === 'turn'
      ? `That is ${(lap.set_out * 360).toFixed(0)}° of its screw.`
      : `That is ${shown.say(lap.set_out, 'length')} of travel of its arbor.`;
  }
</script>

<section aria-label="Laps">
  <h2>Laps for it</h2>
  {#if laps.trouble}<p class="small text-(--stop)" role="alert">{laps.trouble}</p>{/if}
  {#if laps.value?.length === 0}<p class="small dim">None of its kind is on the rack.</p>{/if}
  <ul class="small grid gap-1">
    {#each laps.value ?? [] as lap (lap.item)}
      <li>
        <a class="font-semibold underline" href="/rack/{lap.item}">{lap.name}</a>
        <span class:text-(--stop)={!lap.able}>{shown.tell(lap.said)}</span>
        {#if lap.able}{howFar(lap)}{/if}
        {#if lap.worn_um}Worn by {shown.say(lap.worn_um, 'depth')}.{/if}
      </li>
    {/each}
  </ul>
  <p class="small mt-1 flex gap-4">
    The one to make:
    <a class="go underline" href="/api/lap.svg?{drawing}" download>drawing, SVG</a>
    <a class="go underline" href="/api/lap.pdf?{drawing}" download>PDF</a>
  </p>
</section>
