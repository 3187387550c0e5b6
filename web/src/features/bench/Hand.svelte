<!-- The step in hand, to be read from two metres. What does not fit goes to the sheet of the step, never out of sight: the first
  caution, when the step is done, and the way to the rest are always there. -->
<script lang="ts">
  import { onMount, tick } from 'svelte';
  import type { Hand, Run } from '../../api/client';
  import { choices } from '../../api/catalogue.svelte';
  import { shown } from '../../units/shown.svelte';
  import { figures, whole } from '../../units/units';
  import { LAYS } from './lays';
  import type { Reminder } from './reminders';

  interface Props {
    run: Run;
    hand: Hand;
    due: Reminder[];
    onall: () => void;
    /** How much had to be left out to fit: 0 nothing, then further cautions, the way of working, large figures. */
    level: number;
    /** The size of the window for which it is laid out. */
    laid: string;
  }
  let { run, hand, due, onall, level = $bindable(), laid = $bindable() }: Props = $props();
  const LAST = 3;
  const step = $derived(hand.plan);
  const drawing = $derived(choices.machine(step.machine)?.drawing);
  const KEYS = { rest: 'P', change: 'C', charge: 'R', time: 'Space' };
  /** A warning stands while it is the newest thing that happened; of metal and coat as long as it holds. */
  const reading = $derived(
    run.readings.find(
      (one) =>
        (one.level === 'over' || one.level === 'near') &&
        (one.number === run.last?.number ||
          one === run.readings.find((other) => other.quantity === 'size' || other.quantity === 'coat')),
    ),
  );
  const left = $derived(step.cautions.length - 1 + run.cautions.length);
  const press = $derived(`${step.pressure === 'light' ? 'lightly' : 'medium'}${step.wet ? ', wet' : ''}`);

  let box = $state<HTMLElement>();
  let wide = $state(0);
  let high = $state(0);
  /** The room that is there: timers and warnings around it take some and give it back. */
  let roomWide = $state(0);
  let roomHigh = $state(0);
  let letters = $state(0);
  onMount(() => {
    const count = () => (letters += 1); // letters come after the first picture, and are wider
    document.fonts.addEventListener('loadingdone', count);
    // Whatever else takes room (a timer that wraps) is noticed within a quarter of a second.
    const watch = setInterval(() => {
      if (laid && level < LAST && box && box.scrollHeight > box.clientHeight + 1) level += 1;
    }, 250);
    return () => {
      clearInterval(watch);
      document.fonts.removeEventListener('loadingdone', count);
    };
  });
  /** Everything that the layout depends on. */
  const content = $derived(
    JSON.stringify([
      [hand.face_id, hand.route, hand.step, hand.piece, due.length, reading?.number, drawing?.where],
      [wide, high, roomWide, roomHigh, shown.system, letters],
    ]),
  );
  // Laid out in full first; whatever does not fit is left out step by step until it does.
  $effect(() => {
    void content;
    let stale = false;
    void fit(() => stale);
    return () => (stale = true);
  });

  async function fit(stale: () => boolean) {
    laid = '';
    for (level = 0; ; level += 1) {
      await tick();
      if (stale() || !box) return;
      if (level === LAST || box.scrollHeight <= box.clientHeight + 1) break;
    }
    // What stands around it settles within a frame, and it is laid out again when that took some of its room.
    await new Promise((seen) => requestAnimationFrame(() => requestAnimationFrame(seen)));
    if (!stale()) laid = `${wide}x${high}`;
  }
</script>

<svelte:window bind:innerWidth={wide} bind:innerHeight={high} />

<section
  class="hand flex min-h-0 min-w-0 flex-col overflow-hidden"
  class:small={level === LAST}
  aria-label="Step in hand"
  bind:this={box}
  bind:clientWidth={roomWide}
  bind:clientHeight={roomHigh}
>
  <p class="where">
    <b>{hand.face}{step.zone ? `: ${step.zone.spots.join(' and ')}` : hand.places ? ', over everything' : ''}</b><span
      class="dim"
      >{step.zone
        ? ` ${step.zone.margins_mm.map((margin) => shown.say(margin, 'length')).join(' and ')} around, ${shown.say(step.zone.area_cm2, 'area')} in all`
        : ''}</span
    ><span class="dim"
      >{hand.found_as ? ` (${hand.found_as.toLowerCase()})` : ''}{run.pieces > 1
        ? `, piece ${hand.piece} of ${run.pieces}`
        : ''}, step {hand.step} of {hand.of}{hand.route ? ' of the way back' : ''}</span
    >
  </p>
  <h1 class="title">{step.label}</h1>
  <dl class="flex flex-wrap gap-x-10 gap-y-2">
    <div>
      <dt>{step.machine_label}</dt>
      <dd class="num mono">
        {step.rpm !== null ? whole(step.rpm) : shown.bare(step.speed_m_s, 'speed')}<small
          >{step.rpm !== null ? ' rev/min' : ` ${shown.unit('speed')}`}</small
        >
      </dd>
    </div>
    {#if step.longest_stay_s !== null}
      <div>
        <dt>at most on one spot</dt>
        <dd class="num mono">{figures(step.longest_stay_s)}<small> s</small></dd>
      </div>
    {/if}
    <div>
      <dt>to come off</dt>
      <dd class="num mono">
        {shown.bare(step.takes_um, 'depth')}<small> {shown.unit('depth')}</small>
      </dd>
    </div>
    <div>
      <dt>press</dt>
      <dd class="word">{press}</dd>
    </div>
  </dl>
  {#if due.length || reading}
    <ul class="grid gap-1.5" aria-label="Due now" aria-live="polite">
      {#if reading}
        <li class="due" class:over={reading.level === 'over'}>{shown.tell(reading.verdict)}</li>
      {/if}
      {#each due as one (one.kind)}<li class="due">{one.text} <kbd>{KEYS[one.kind]}</kbd></li>{/each}
    </ul>
  {/if}
  {#if level < 2}
    <p class="way">
      {LAYS[step.lay]}
      {drawing?.where ?? ''}
    </p>
  {/if}
  <p class="done"><b>Done when:</b> {step.check}</p>
  <div class="cautions" role="region" aria-label="Cautions">
    {#if step.cautions.length}
      <ul class="min-w-0 flex-1">
        {#each level === 0 ? step.cautions : step.cautions.slice(0, 1) as caution (caution)}<li>{caution}</li>{/each}
      </ul>
    {/if}
    <button class="all" onclick={onall}
      >{level > 0 && left > 0 ? `${left} more to mind` : 'All of this step'} <kbd>H</kbd></button
    >
  </div>
</section>

<style>
  .hand {
    gap: 0.7rem;
  }
  .where {
    font-size: 1.2rem;
  }
  .title {
    font-size: clamp(1.9rem, 3.2vw, 3.1rem);
    line-height: 1.05;
    text-wrap: balance;
  }
  dt {
    color: var(--dim);
    font-size: 1.05rem;
  }
  dd {
    font-size: 2.75rem;
    font-weight: 650;
    line-height: 1.1;
  }
  dd small {
    margin-left: 0.35em;
    font-size: 1.4rem;
    color: var(--dim);
  }
  dd.word {
    font-size: 1.9rem;
    line-height: 1.55;
  }
  .way {
    font-size: 1.3rem;
    line-height: 1.3;
  }
  .done {
    font-size: 1.2rem;
    line-height: 1.3;
  }
  .due {
    background: var(--t1);
    color: #191b1e;
    border-radius: 10px;
    padding: 0.45rem 0.9rem;
    font-size: 1.35rem;
    font-weight: 700;
  }
  .due.over {
    background: #a8321f;
    color: #fff;
  }
  .cautions {
    display: flex;
    flex-shrink: 0;
    align-items: center;
    gap: 0.8rem;
    background: var(--stop-soft);
    color: var(--stop);
    border-radius: 10px;
    padding: 0.4rem 0.4rem 0.4rem 0.9rem;
    font-size: 1.05rem;
    line-height: 1.3;
  }
  .all {
    flex-shrink: 0;
    min-height: 44px;
    border: 2px solid currentColor;
    border-radius: 8px;
    padding: 0 0.8rem;
    font-weight: 700;
    cursor: pointer;
  }
  .where,
  .title,
  dl,
  .way,
  .done {
    flex-shrink: 0;
  }
  /* Little room: the same, said in less of it. */
  .small {
    gap: 0.3rem;
  }
  .small .where {
    font-size: 1rem;
  }
  .small .title {
    font-size: 1.45rem;
  }
  .small dl {
    column-gap: 1.4rem;
    row-gap: 0;
  }
  .small dl > div {
    display: flex;
    flex-direction: row-reverse;
    align-items: baseline;
    gap: 0.35rem;
  }
  .small dt {
    font-size: 0.87rem;
  }
  .small dd,
  .small dd.word {
    font-size: 1.25rem;
    line-height: 1.2;
  }
  .small dd small {
    margin-left: 0.2em;
    font-size: 0.87rem;
  }
  .small .due {
    padding: 0.2rem 0.7rem;
    font-size: 1rem;
  }
  .small .done,
  .small .cautions {
    font-size: 0.95rem;
    line-height: 1.22;
  }
  .small .cautions {
    padding-block: 0.2rem;
  }
  @media (max-width: 560px) and (orientation: portrait) {
    .cautions {
      flex-wrap: wrap;
      padding: 0.3rem 0.6rem;
    }
  }
  kbd {
    border: 1px solid currentColor;
    border-radius: 4px;
    padding: 0 5px;
    font-size: 0.8em;
  }
</style>
