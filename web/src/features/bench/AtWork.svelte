<!-- A run in hand: the strip, the step, the clock, the pieces, the answers, and everything beside them on a key. -->
<script lang="ts">
  import { choices } from '../../api/catalogue.svelte';
  import Dial from '../../charts/Dial.svelte';
  import { temperColour } from '../../charts/temper';
  import { useKeys } from '../../ui/keys.svelte';
  import { clock, duration } from '../../units/units';
  import Answers from './Answers.svelte';
  import Around from './Around.svelte';
  import AroundSheet from './AroundSheet.svelte';
  import BackSheet from './BackSheet.svelte';
  import Ending from './Ending.svelte';
  import Hand from './Hand.svelte';
  import Looks from './Looks.svelte';
  import MeasureSheet from './MeasureSheet.svelte';
  import NoteSheet from './NoteSheet.svelte';
  import PhotoSheet from './PhotoSheet.svelte';
  import Pieces from './Pieces.svelte';
  import { reminders, secondsNow, stayShare } from './reminders';
  import type { BenchRun } from './run.svelte';
  import { sound } from './sound.svelte';
  import Strip from './Strip.svelte';
  import Tools from './Tools.svelte';

  let { bench }: { bench: BenchRun } = $props();
  type Sheet = 'back' | 'measure' | 'photo' | 'note' | 'around';
  let sheet = $state<Sheet | null>(null);
  const run = $derived(bench.run);
  const hand = $derived(run.status === 'open' ? run.hand : null);
  const seconds = $derived(hand ? secondsNow(hand, bench.since) : 0);
  const target = $derived(hand ? hand.planned_s + hand.more_s : 0);
  const due = $derived(hand ? reminders(hand, bench.since, hand.plan.spent.unit) : []);
  const stay = $derived(hand?.running ? stayShare(hand.running_s + bench.since, hand.plan.longest_stay_s) : null);
  const drawing = $derived(hand ? choices.machine(hand.plan.machine)?.drawing : null);

  // A tone when something becomes due, a lower one when the spot must be left.
  const kinds = $derived(due.map((one) => one.kind).join());
  $effect(() => {
    if (kinds) sound.play(880, 0.4);
  });
  const spot = $derived(
    stay === null || !hand ? 0 : Math.floor((hand.running_s + bench.since) / (hand.plan.longest_stay_s ?? 1)),
  );
  $effect(() => {
    if (spot) sound.play(440, 0.09);
  });

  const start = () => void bench.work('started');
  const gone = () => void bench.work('gone');
  const more = () => hand && void bench.work('more', { seconds: hand.more_by_s });
  const pause = () => hand && void (hand.running ? bench.work('paused') : bench.work('started'));
  const next = () => hand && (hand.begun ? gone() : start());
  const change = () => hand && void bench.tap({ kind: 'changed', tool: hand.plan.tool });
  const charge = () => hand?.plan.recharge && void bench.tap({ kind: 'recharged', tool: hand.plan.tool });
  const pick = (piece: number) => void bench.tap({ kind: 'picked', piece });
  const order = (to: 'step' | 'piece') => void bench.tap({ kind: 'order', order: to });
  const open = (which: Sheet) => () => (sheet = which);

  useKeys('At the bench', [
    { press: 'Space', shown: 'Space', does: 'Start, then: old marks gone, next', run: () => next() },
    { press: 'k', shown: 'K', does: 'Still some, keep going', run: () => hand?.begun && more() },
    { press: 'g', shown: 'G', does: 'Found a deep one: go back', run: () => hand?.begun && (sheet = 'back') },
    { press: 'p', shown: 'P', does: 'Pause, go on', run: () => hand?.begun && pause() },
    { press: 'c', shown: 'C', does: 'A new abrasive is on', run: () => change() },
    { press: 'r', shown: 'R', does: 'The wheel is charged again', run: () => charge() },
    { press: 'z', shown: 'Z', does: 'Take back the last tap', run: () => void bench.undo() },
    { press: 'm', shown: 'M', does: 'Measure', run: open('measure') },
    { press: 'f', shown: 'F', does: 'Photo', run: open('photo') },
    { press: 'n', shown: 'N', does: 'Note, or something went wrong', run: open('note') },
    { press: 't', shown: 'T', does: 'Around it: soak, dry, coat', run: open('around') },
    {
      press: 'o',
      shown: 'O',
      does: 'All pieces per step, or one piece through',
      run: () => run.pieces > 1 && order(run.order === 'step' ? 'piece' : 'step'),
    },
    { press: 's', shown: 'S', does: 'Sound on or off', run: () => sound.toggle() },
  ]);
</script>

<div class="flex min-h-full flex-col gap-3 px-5 py-3.5" data-seen={run.seen}>
  {#if bench.silent || bench.waiting}
    <p class="silent" role="alert">
      The program does not answer. {bench.waiting
        ? 'Your last tap is kept in this browser and is sent as soon as it does.'
        : 'The clock here goes on; what was tapped is kept.'}
    </p>
  {/if}
  <Around {bench} />
  {#if hand}
    <Strip {run} />
    <div class="work grid min-h-0 flex-1 gap-6 md:grid-cols-[minmax(0,1fr)_minmax(15rem,25rem)]">
      <Hand {run} {hand} {due} />
      <div class="dial flex min-h-60 flex-col items-center">
        <div class="min-h-0 w-full flex-1">
          <Dial
            time={clock(seconds)}
            under={hand.begun && !hand.running ? 'paused' : `of ${duration(target / 60)}`}
            share={target > 0 ? seconds / target : 0}
            {stay}
            colour={temperColour(hand.plan.grain_um)}
            {drawing}
          />
        </div>
        <Looks run={run.id} {hand} />
      </div>
    </div>
    <div class="flex flex-wrap items-stretch justify-between gap-2 lg:flex-nowrap">
      <Pieces {run} onpick={pick} onorder={order} />
      <Tools {bench} {hand} onpause={pause} onchange={change} oncharge={charge} onopen={(which) => (sheet = which)} />
    </div>
    <Answers
      {run}
      {hand}
      {seconds}
      ready={bench.ready}
      onstart={start}
      ongone={gone}
      onmore={more}
      onback={() => (sheet = 'back')}
    />
  {:else}
    <Ending {bench} onopen={(which) => (sheet = which)} />
  {/if}
</div>
{#if hand}
  <BackSheet {bench} {hand} open={sheet === 'back'} onclose={() => (sheet = null)} />
{/if}
<MeasureSheet {bench} open={sheet === 'measure'} onclose={() => (sheet = null)} />
<PhotoSheet {bench} open={sheet === 'photo'} onclose={() => (sheet = null)} />
<NoteSheet {bench} open={sheet === 'note'} onclose={() => (sheet = null)} />
<AroundSheet {bench} open={sheet === 'around'} onclose={() => (sheet = null)} />

<style>
  /* A phone held sideways: the page scrolls, the answers stay at its foot. */
  @media (max-height: 640px) {
    .work {
      flex: none;
    }
    .dial {
      height: 13.5rem;
      min-height: 0;
    }
  }
  .silent {
    border-radius: 10px;
    background: #a8321f;
    color: #fff;
    padding: 0.6rem 1rem;
    font-size: 1.2rem;
    font-weight: 650;
  }
</style>
