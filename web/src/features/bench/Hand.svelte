<!-- The step in hand, to be read from two metres. -->
<script lang="ts">
  import type { Hand, Run } from '../../api/client';
  import { choices } from '../../api/catalogue.svelte';
  import { shown } from '../../units/shown.svelte';
  import { figures, settable, whole } from '../../units/units';
  import type { Reminder } from './reminders';

  let { run, hand, due }: { run: Run; hand: Hand; due: Reminder[] } = $props();
  const step = $derived(hand.plan);
  const drawing = $derived(choices.machine(step.machine)?.drawing);
  const LAYS = {
    across: 'Work across the marks before: what is left of them shows.',
    along: 'One direction only, long even passes; never turn the part round.',
    none: 'Keep it moving every way, without direction.',
  };
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
</script>

<section class="hand flex min-h-0 min-w-0 flex-col gap-3 overflow-hidden" aria-label="Step in hand">
  <p class="text-lg font-semibold">
    {hand.face}<span class="dim font-normal"
      >{run.pieces > 1 ? `, piece ${hand.piece} of ${run.pieces}` : ''}, step {hand.step} of {hand.of}{hand.route
        ? ' of the way back'
        : ''}</span
    >
  </p>
  <h1 class="title">{step.label}</h1>
  <dl class="flex flex-wrap gap-x-10 gap-y-2">
    <div>
      <dt>{step.machine_label}</dt>
      <dd class="num mono">
        {step.rpm !== null ? whole(settable(step.rpm)) : shown.bare(step.speed_m_s, 'speed')}<small
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
      <dd class="word">{step.pressure === 'light' ? 'lightly' : 'medium'}{step.wet ? ', wet' : ''}</dd>
    </div>
  </dl>
  {#if due.length || reading}
    <ul class="grid gap-1.5" aria-label="Due now" aria-live="polite">
      {#if reading}
        <li class="due" class:over={reading.level === 'over'}>{shown.text(reading.verdict ?? '')}</li>
      {/if}
      {#each due as one (one.kind)}<li class="due">{one.text} <kbd>{KEYS[one.kind]}</kbd></li>{/each}
    </ul>
  {/if}
  <p class="text-[1.35rem] leading-snug">
    {LAYS[step.lay]}
    {drawing?.where ?? ''}
  </p>
  <p class="text-lg leading-snug"><b>Done when:</b> {step.check}</p>
  <!-- It scrolls when the cautions are long, so the keyboard must reach it. -->
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <ul class="cautions min-h-0 overflow-auto" aria-label="Cautions" tabindex="0">
    {#each step.cautions as caution (caution)}<li>{caution}</li>{/each}
  </ul>
</section>

<style>
  @media (max-height: 640px) {
    .hand {
      overflow: visible;
    }
  }
  .title {
    font-size: clamp(2rem, 3.4vw, 3.1rem);
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
    background: var(--stop-soft);
    color: var(--stop);
    border-radius: 10px;
    padding: 0.5rem 0.9rem;
    font-size: 1.05rem;
    line-height: 1.35;
  }
</style>
