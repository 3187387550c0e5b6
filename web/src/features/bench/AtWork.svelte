<!-- A run in hand: the strip, the step, the clock, the pieces, the answers, and everything beside them on a key. -->
<script lang="ts">
  import { choices } from '../../api/catalogue.svelte';
  import Dial from '../../charts/Dial.svelte';
  import { temperColour } from '../../charts/temper';
  import { useKeys } from '../../ui/keys.svelte';
  import { works } from '../../ui/moves';
  import { speak } from '../../ui/speech';
  import { MEANINGS, shownKey, taught, type Meaning } from '../../ui/taught.svelte';
  import { shown } from '../../units/shown.svelte';
  import { stepAloud } from './aloud';
  import { clock, plannedClock } from '../../units/units';
  import Answers from './Answers.svelte';
  import Around from './Around.svelte';
  import AroundSheet from './AroundSheet.svelte';
  import AtGauge from './AtGauge.svelte';
  import BackSheet from './BackSheet.svelte';
  import Ending from './Ending.svelte';
  import EyeSheet from './EyeSheet.svelte';
  import Hand from './Hand.svelte';
  import Looks from './Looks.svelte';
  import MeasureSheet from './MeasureSheet.svelte';
  import NoteSheet from './NoteSheet.svelte';
  import ReadSheet from './ReadSheet.svelte';
  import SizeSection from './SizeSection.svelte';
  import PhotoSheet from './PhotoSheet.svelte';
  import Pieces from './Pieces.svelte';
  import { keptHere, reminders, secondsNow, stayShare } from './reminders';
  import type { BenchRun } from './run.svelte';
  import { sound } from '../../ui/sound.svelte';
  import StepSheet from './StepSheet.svelte';
  import Strip from './Strip.svelte';
  import Tools from './Tools.svelte';

  let { bench }: { bench: BenchRun } = $props();
  type Sheet = 'eye' | 'back' | 'read' | 'measure' | 'photo' | 'note' | 'around' | 'step';
  let sheet = $state<Sheet | null>(null);
  let level = $state(0);
  let laid = $state('');
  let high = $state(innerHeight);
  const short = $derived(high <= 560);
  const run = $derived(bench.run);
  const hand = $derived(run.status === 'open' ? run.hand : null);
  const seconds = $derived(hand ? secondsNow(hand, bench.since) : 0);
  const target = $derived(hand ? hand.planned_s + hand.more_s : 0);
  /** The tap that was said to be meant, however soon it came. */
  let sure = $state(0);
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

  // A face whose size is wanted goes by the gauge; when that says stop on its last step, by the light again.
  const size = $derived(hand?.size ?? null);
  let enoughAt = $state(-1);
  const enough = $derived(size !== null && enoughAt === size.readings.length);
  const asks = $derived(size !== null && !hand?.running && !enough && size.to_read.length > 0);
  const move = $derived(size?.answer?.next.move ?? 'measure');
  const gauged = $derived(size !== null && !(move === 'stop' && !asks && !hand?.running && hand?.step === hand?.of));
  const following = $derived(run.strip.find((one) => one.state === 'next')?.label ?? 'what comes next');
  const passed = () =>
    hand && (hand.begun ? gone() : void bench.work('skipped', { words: 'By the gauge nothing is left for it.' }));
  async function stopAndRead() {
    if (await bench.work('paused')) sheet = 'read';
  }
  function byGauge() {
    if (hand?.running) void stopAndRead();
    else if (asks) sheet = 'read';
    else if (works(move)) start();
    else if (move === 'finer' || move === 'stop') passed();
    else sheet = 'read';
  }

  const start = () => void bench.work('started');
  const gone = () => void bench.work('gone');
  const more = () => hand && void bench.work('more', { seconds: hand.more_by_s });
  const pause = () => hand && void (hand.running ? bench.work('paused') : bench.work('started'));
  const next = () => hand && (gauged ? byGauge() : hand.begun ? gone() : start());
  const change = () => hand && void bench.tap({ kind: 'changed', tool: hand.plan.tool });
  const charge = () => hand?.plan.recharge && void bench.tap({ kind: 'recharged', tool: hand.plan.tool });
  const pick = (piece: number) => void bench.tap({ kind: 'picked', piece });
  const order = (to: 'step' | 'piece') => void bench.tap({ kind: 'order', order: to });
  const open = (which: Sheet) => () => (sheet = which);

  const aloud = () => hand && speak(stepAloud(hand, choices.machine(hand.plan.machine)?.label ?? '', shown));
  const meant = {
    next: () => next(),
    pause: () => hand?.begun && pause(),
    more: () => hand?.begun && !gauged && more(),
  };

  useKeys('At the bench', [
    ...(Object.entries(taught.keys) as [Meaning, string][]).map(([meaning, key]) => ({
      press: key,
      shown: shownKey(key),
      does: `${MEANINGS[meaning]} (taught)`,
      run: () => void meant[meaning](),
    })),
    { press: 'a', shown: 'A', does: 'Read the step aloud', run: () => void aloud() },
    { press: 'Space', shown: 'Space', does: 'Start, then: old marks gone, next', run: () => next() },
    { press: 'k', shown: 'K', does: 'Still some, keep going', run: () => hand?.begun && !gauged && more() },
    { press: 'g', shown: 'G', does: 'Found a deep one: go back', run: () => hand?.begun && (sheet = 'back') },
    { press: 'p', shown: 'P', does: 'Pause, go on', run: () => hand?.begun && pause() },
    { press: 'c', shown: 'C', does: 'A new abrasive is on', run: () => change() },
    { press: 'r', shown: 'R', does: 'The wheel is charged again', run: () => charge() },
    { press: 'z', shown: 'Z', does: 'Undo the last tap', run: () => void bench.undo() },
    { press: 'm', shown: 'M', does: 'Measure', run: () => (sheet = size ? 'read' : 'measure') },
    { press: 'e', shown: 'E', does: 'Ask the eye: a light check from two photos', run: () => hand && (sheet = 'eye') },
    { press: 'f', shown: 'F', does: 'Photo', run: open('photo') },
    { press: 'n', shown: 'N', does: 'Note, or something went wrong', run: open('note') },
    { press: 't', shown: 'T', does: 'Before and after: soak, dry, coat', run: open('around') },
    {
      press: 'o',
      shown: 'O',
      does: 'All pieces per step, or one piece through',
      run: () => run.pieces > 1 && order(run.order === 'step' ? 'piece' : 'step'),
    },
    { press: 's', shown: 'S', does: 'Sound on or off', run: () => sound.toggle() },
    { press: 'h', shown: 'H', does: 'All of this step: cautions, when it is done, how to work', run: open('step') },
  ]);
</script>

<svelte:window bind:innerHeight={high} />
<!-- A tap by hand leaves no control in hand, so that the next key means what it says on the screen. -->
<!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
<div
  class="bench flex flex-col"
  class:scrolls={level === 3}
  data-seen={run.seen}
  data-level={level}
  data-laid={laid}
  onclick={(event) => event.detail > 0 && (document.activeElement as HTMLElement | null)?.blur()}
>
  {#if bench.silent || bench.waiting.length}
    <p class="silent" class:calm={bench.silent && !bench.lost && !bench.why} role="alert">{keptHere(bench)}</p>
  {/if}
  {#if run.last?.doubt && run.last.number !== sure && !bench.silent}
    <p class="doubt" role="status">
      <span class="flex-1">{shown.tell(run.last.doubt)}</span>
      <button onclick={() => void bench.undo()}>No, undo</button>
      <button onclick={() => (sure = run.last?.number ?? 0)}>Yes</button>
    </p>
  {/if}
  {#if !hand || !short}<Around {bench} short={false} onopen={open('around')} />{/if}
  {#if hand}
    <Strip {run} />
    <div class="work grid min-h-0 flex-1 gap-x-6">
      <Hand {run} {hand} {due} onall={() => (sheet = 'step')} bind:level bind:laid />
      <div class="dial flex min-h-0 flex-col items-center">
        {#if !(size?.answer && gauged)}
          <div class="min-h-0 w-full flex-1">
            <Dial
              time={clock(seconds)}
              under={hand.begun && !hand.running ? 'paused' : `cutting, of ${plannedClock(target)}`}
              share={target > 0 ? seconds / target : 0}
              {stay}
              colour={temperColour(hand.plan.grain_um)}
              {drawing}
            />
          </div>
        {/if}
        {#if size?.answer && level < 3}<SizeSection {size} answer={size.answer} />
        {:else if level === 0}<Looks run={run.id} {hand} job={run.job_id} />{/if}
      </div>
    </div>
    <div class="beside flex min-w-0 items-stretch justify-between gap-2">
      <Pieces {run} onpick={pick} onorder={order} />
      {#if short}<Around {bench} {short} onopen={open('around')} />{/if}
      <Tools {bench} {hand} onpause={pause} onchange={change} oncharge={charge} onopen={(which) => (sheet = which)} />
    </div>
    {#if size && gauged}
      <AtGauge
        {hand}
        {size}
        running={hand.running ? hand.running_s + bench.since : 0}
        then={following}
        ready={bench.ready}
        {enough}
        onstart={start}
        onstop={() => void stopAndRead()}
        onread={() => (sheet = 'read')}
        onnext={passed}
      />
    {:else}
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
    {/if}
  {:else}
    <Ending {bench} onopen={(which) => (sheet = which)} />
  {/if}
</div>
{#if hand}
  <BackSheet {bench} {hand} open={sheet === 'back'} onclose={() => (sheet = null)} />
  <StepSheet {run} {hand} onaloud={aloud} open={sheet === 'step'} onclose={() => (sheet = null)} />
{/if}
{#if hand && size}
  <ReadSheet
    {bench}
    {size}
    open={sheet === 'read'}
    onclose={() => (sheet = null)}
    onenough={() => {
      enoughAt = size.readings.length;
      sheet = null;
    }}
  />
{/if}
{#if hand}
  <EyeSheet
    {bench}
    open={sheet === 'eye'}
    onclose={() => (sheet = null)}
    onback={() => (sheet = hand.begun ? 'back' : null)}
  />
{/if}
<MeasureSheet {bench} open={sheet === 'measure'} onclose={() => (sheet = null)} />
<PhotoSheet {bench} open={sheet === 'photo'} onclose={() => (sheet = null)} />
<NoteSheet {bench} open={sheet === 'note'} onclose={() => (sheet = null)} />
<AroundSheet {bench} open={sheet === 'around'} onclose={() => (sheet = null)} />

<style>
  .doubt {
    display: flex;
    align-items: center;
    gap: 0.75rem;
    border: 2px solid var(--t1);
    border-radius: 10px;
    padding: 0.3rem 0.9rem;
    font-size: 1.15rem;
    font-weight: 600;
  }
  .doubt button {
    min-height: 44px;
    min-width: 5rem;
    border: 1px solid currentColor;
    border-radius: 8px;
    padding: 0 0.9rem;
    cursor: pointer;
  }
  /* It stands on one screen; only when even the least does not fit does it scroll, with the answers at its foot. */
  .bench {
    height: 100%;
    min-height: 0;
    gap: 0.75rem;
    padding: 0.9rem 1.25rem;
    overflow: hidden;
  }
  .bench.scrolls {
    overflow: auto;
  }
  .work {
    grid-template-columns: minmax(0, 1fr) minmax(9.5rem, min(31%, 25rem));
    grid-template-rows: minmax(0, 1fr);
  }
  @media (max-height: 560px) {
    .bench {
      gap: 0.4rem;
      padding: 0.4rem 0.8rem;
    }
    .work {
      grid-template-columns: minmax(0, 1fr) 10.5rem;
    }
  }
  @media (orientation: portrait) {
    .work {
      grid-template-columns: minmax(0, 1fr) minmax(11rem, 34%);
    }
  }
  /* A phone held upright: the step over the dial. */
  @media (max-width: 560px) and (orientation: portrait) {
    .bench {
      padding: 0.6rem 0.7rem;
    }
    .work {
      grid-template-columns: minmax(0, 1fr);
      grid-template-rows: minmax(0, 1fr) 8.5rem;
      row-gap: 0.5rem;
    }
  }
  .silent.calm {
    background: #7a5a12;
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
