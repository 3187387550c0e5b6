<!-- One part at the gauge: the next move, the pad for the reading, and the form as it is known. -->
<script lang="ts">
  import { route } from '../../app/router';
  import { api } from '../../api/client';
  import LengthChart from '../../charts/LengthChart.svelte';
  import SectionChart from '../../charts/SectionChart.svelte';
  import { useKeys } from '../../ui/keys.svelte';
  import LapsAtHand from '../../ui/LapsAtHand.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import { canSpeak, speak } from '../../ui/speech';
  import { shown } from '../../units/shown.svelte';
  import { Gauging, REFERENCE_C } from './gauging.svelte';
  import LapToMake from './LapToMake.svelte';
  import { aloudOf, placeWords, readText, sizeText, works } from '../../ui/moves';
  import NextMove from './NextMove.svelte';
  import NumberPad from '../../ui/NumberPad.svelte';

  const params = $derived(route.getParams('/gauge/:id'));
  const gauging = $derived(new Gauging(Number(params.id)));
  $effect(() => void gauging.load());
  const kept = $derived(gauging.kept);
  const size = $derived(kept?.size);
  const answer = $derived(kept?.answer ?? null);
  const tool = $derived(size?.lap ? 'lap' : (size?.lathe?.turned_by ?? 'lap'));
  const base = $derived(answer ? answer.form.size_mm : 0);
  const exact = (mm: number) => sizeText(mm, shown.system);
  const withUnit = (mm: number) => `${exact(mm)} ${shown.unit('length')}`;
  /** A size that was read, no finer than the gauge reads. */
  const read = (mm: number) =>
    `${readText(mm, shown.system, size?.gauge.repeatability_um ?? 0.1)} ${shown.unit('length')}`;
  /** Somebody looked at the limits before the first reading. */
  let checked = $state(false);
  const unread = $derived(gauging.rounds.every((round) => round.readings.length === 0));
  const um = (mm: number) => (mm - base) * 1000;
  const readings = $derived(
    gauging.rounds.flatMap((round, at) =>
      round.readings.map((one) => ({ ...one, old: at < gauging.rounds.length - 1, round: at })),
    ),
  );
  const newest = $derived(readings.at(-1));
  const doubtful = $derived(
    answer?.doubtful === null || answer?.doubtful === undefined
      ? undefined
      : gauging.rounds.at(-1)?.readings[answer.doubtful],
  );
  const near = $derived(newest?.mm ?? answer?.limits_mm[0] ?? size?.want.limits_mm?.[0] ?? size?.want.nominal_mm ?? 10);
  const said = $derived(answer ? told(answer) : []);

  function told(known: NonNullable<typeof answer>): { name: string; value: string }[] {
    const form = known.form;
    const part = (name: string, value: number | null, within: number | null) =>
      value === null
        ? []
        : [
            {
              name,
              value: `${shown.bare(Math.abs(value) < 0.05 ? 0 : value, 'depth', 3)} ± ${shown.say(within ?? 0, 'depth')}`,
            },
          ];
    return [
      { name: 'As found', value: `${read(form.size_mm)} ± ${shown.say(form.size_pm_um, 'depth')}` },
      ...part('Taper, end to end', form.taper_um, form.taper_pm_um),
      ...part('Belly (below 0: waist)', form.barrel_um, form.barrel_pm_um),
      ...part('Oval', form.oval_um, form.oval_pm_um),
      ...(form.oval_at_least_um === null
        ? []
        : [{ name: 'Oval, at least', value: shown.say(form.oval_at_least_um, 'depth') }]),
      { name: 'Now', value: `${read(known.now_mm)} ± ${shown.say(known.now_pm_um, 'depth')}` },
      ...clearance(known),
      { name: 'To the near limit', value: shown.say(known.left_um.near, 'depth', 3) },
      { name: 'To the far limit', value: shown.say(known.left_um.far, 'depth', 3) },
      {
        name: known.rate_um_min.yours ? 'Rate, a minute, yours' : 'Rate, a minute',
        value: `${shown.say(known.rate_um_min.likely, 'depth')} (${shown.bare(known.rate_um_min.low, 'depth')} to ${shown.bare(known.rate_um_min.high, 'depth')})`,
      },
      { name: 'Clean now', value: `${Math.round(100 * known.share)} %` },
      ...known.stop_sheet.map((one) => ({
        name: `Read after ${one.grade}`,
        value: withUnit(one.read_mm),
      })),
    ];
  }

  /** What there is now between it and its mate, and what is wanted. */
  function clearance(known: NonNullable<typeof answer>): { name: string; value: string }[] {
    const mate = size?.want.mate_mm;
    if (!size || !mate) return [];
    const now = 1000 * (size.kind === 'bore' ? known.now_mm - mate : mate - known.now_mm);
    const [least, most] = size.want.clearance_um ?? [0, 0];
    const wanted = `${shown.bare(least, 'depth')} to ${shown.say(most, 'depth')}`;
    return [
      { name: 'Clearance now', value: `${shown.bare(now, 'depth', 3)} ± ${shown.say(known.now_pm_um, 'depth')}` },
      { name: 'Clearance wanted', value: wanted },
    ];
  }

  useKeys('Gauge', [
    {
      press: 'Space',
      shown: 'Space',
      does: 'Start, or stop and read',
      run: () => (gauging.began === null ? startIfAsked() : void gauging.stop()),
    },
    { press: 'r', shown: 'R', does: 'Read again', run: () => void gauging.readAgain() },
    { press: 'z', shown: 'Z', does: 'Take the newest reading back', run: () => void gauging.undo() },
    { press: 'a', shown: 'A', does: 'Read the next move aloud', run: () => aloud() },
    { press: 'e', shown: 'E', does: 'Enough readings', run: () => gauging.enough() },
  ]);

  /** The next move, for somebody whose eyes are on the work. */
  function aloud() {
    if (gauging.todo && gauging.place && size)
      speak(
        `Read it ${placeWords(gauging.place.z_mm, size.length_mm)}, at ${Math.round(gauging.place.phi_deg)} degrees`,
      );
    else if (answer) speak(aloudOf(answer.next.move, tool, answer.next.seconds, shown.tell(answer.next.reason_said)));
  }

  function startIfAsked() {
    const move = answer?.next.move;
    if (move && works(move)) gauging.start();
  }
</script>

<svelte:head><title>{size?.title ?? 'Gauge'} – Kelbrast</title></svelte:head>

<div class="gauge mx-auto w-full max-w-7xl flex-1 p-5">
  {#if gauging.missing}
    <h1>No such part</h1>
    <p>It may have been deleted. <a class="underline" href="/gauge">All parts at the gauge</a></p>
  {:else if kept && size}
    <div class="mb-4 flex flex-wrap items-baseline gap-x-4">
      <h1>{size.title}</h1>
      <p class="dim">
        {size.kind === 'bore' ? 'Bore' : 'Shaft'}
        {exact(kept.limits_mm[0])} to {withUnit(kept.limits_mm[1])},
        {shown.say(size.length_mm, 'length', 3)} long; round {gauging.worked + 1}
      </p>
    </div>
    <div class="grid gap-5 lg:grid-cols-[minmax(0,1.25fr)_minmax(0,1fr)]">
      <div class="flex min-w-0 flex-col gap-4">
        {#if unread && !checked}
          <section class="rounded-xl border-2 border-(--line) bg-(--card) p-5" aria-label="Check what is wanted">
            <p class="dim">Before the first reading: is this what the drawing wants?</p>
            <p class="text-5xl font-bold">{size.kind === 'bore' ? 'Bore' : 'Shaft'}</p>
            <p class="num mb-4 text-4xl font-bold">{exact(kept.limits_mm[0])} to {withUnit(kept.limits_mm[1])}</p>
            <div class="flex flex-wrap items-center gap-4">
              <button class="main-button min-h-12" onclick={() => (checked = true)}>Yes, read it</button>
              <a class="underline" href="/gauge">No: describe it again</a>
            </div>
          </section>
        {:else if gauging.todo && gauging.place}
          <section class="rounded-xl border-2 border-(--line) bg-(--card) p-5" aria-label="Read the size">
            <p class="small dim" data-testid="count">Reading {gauging.done + 1} of {gauging.todo.length}</p>
            <p class="text-3xl font-bold">
              {placeWords(gauging.place.z_mm, size.length_mm)}, at {Math.round(gauging.place.phi_deg)}°
            </p>
            <p class="dim mb-3">
              {gauging.worked
                ? 'Washed, cool, and where the tool was first.'
                : 'Clean, at the temperature of the gauge, before any work.'}
            </p>
            <div class="flex flex-wrap gap-5">
              <NumberPad {near} ontake={(mm) => void gauging.take(mm)} />
              <div class="flex w-36 flex-col gap-2">
                <NumberField
                  label="The part is at"
                  value={gauging.at}
                  quantity="temperature"
                  placeholder="as the gauge"
                  onchange={(celsius) => (gauging.at = celsius)}
                  onclear={() => (gauging.at = null)}
                />
                {#if gauging.at !== null}
                  <NumberField
                    label="The gauge is at"
                    lazy
                    value={size.gauge_c ?? REFERENCE_C}
                    quantity="temperature"
                    onchange={(celsius) => void gauging.gaugeAt(celsius)}
                  />
                {/if}
                <button class="plain-button min-h-12" onclick={() => void gauging.undo()} disabled={!readings.length}
                  >Undo <kbd>Z</kbd></button
                >
                <button
                  class="plain-button min-h-12"
                  onclick={() => gauging.enough()}
                  disabled={!gauging.rounds.at(-1)?.readings.length}>Enough <kbd>E</kbd></button
                >
              </div>
            </div>
          </section>
        {:else}
          <NextMove
            {answer}
            {tool}
            began={gauging.began}
            onstart={() => gauging.start()}
            onstop={() => void gauging.stop()}
            onread={() => void gauging.readAgain()}
            onfiner={() => void gauging.takeFiner()}
          />
          {#if canSpeak()}
            <button class="plain-button self-start" onclick={aloud}>Read it aloud <kbd>A</kbd></button>
          {/if}
        {/if}
        {#if doubtful}
          <p class="rounded-lg border border-(--stop) p-3 font-semibold" role="alert">
            {withUnit(doubtful.mm)} cannot be right beside the others. Read it again:
            <button class="underline" onclick={() => void gauging.undo()}>undo it</button> (Z).
          </p>
        {/if}
        {#if answer}
          <dl class="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 sm:grid-cols-[auto_1fr_auto_1fr]">
            {#each said as one (one.name)}<dt class="dim">{one.name}</dt>
              <dd class="num">{one.value}</dd>{/each}
          </dl>
          {#if !answer.can_be_had.all_round}
            <p>
              Within the limits {Math.round(100 * answer.can_be_had.cleaned_share)} % of it can be clean; {shown.say(
                answer.can_be_had.oval_left_um,
                'depth',
              )} of oval stay.
            </p>
          {/if}
        {/if}
      </div>
      <aside class="flex min-w-0 flex-col gap-4">
        {#if answer}
          <SectionChart
            section={{
              mean: 0,
              oval: answer.form.oval_um ?? answer.form.oval_at_least_um ?? 0,
              widest: answer.form.widest_deg ?? 0,
              now: um(answer.now_mm),
              low: um(answer.limits_mm[0]),
              high: um(answer.limits_mm[1]),
              kind: size.kind,
            }}
            diameter={base}
            words="Section: found at {read(base)}, {Math.round(100 * answer.share)} % of it clean"
          />
          <p class="small dim">
            Black: the part. Dashed: the two limits. Green: where the {tool} has cut to, and what it has cleaned.
          </p>
          <LengthChart
            readings={readings.map((one) => ({ z: one.z_mm, value: um(one.mm), old: one.old }))}
            limits={{ low: um(answer.limits_mm[0]), high: um(answer.limits_mm[1]) }}
            length={size.length_mm}
            within={2 * size.gauge.repeatability_um}
            words="{readings.length} readings along the length, between the limits"
          />
          <ul class="small dim list-disc pl-4">
            {#each answer.form.cannot_tell as one (one)}<li>{one}</li>{/each}
          </ul>
          {#if answer.lap}
            {#if gauging.worked === 0}<LapToMake lap={answer.lap} kind={size.kind} />{/if}
            <LapsAtHand
              ask={() =>
                api.laps({
                  kind: size.kind,
                  tightest_mm: answer.now_mm,
                  target_mm: answer.target_mm,
                  length_mm: size.length_mm,
                  grade: gauging.grade ?? 'F400',
                })}
              work={new URLSearchParams({
                kind: size.kind,
                tightest_mm: String(answer.now_mm),
                length_mm: String(size.length_mm),
                material: size.material,
                title: size.title,
              }).toString()}
            />
          {/if}
        {/if}
        <p class="small dim">
          Never by hand with a rag near turning work: tissue tears, rags pull. Safety glasses on; chuck key out before
          the switch.
        </p>
      </aside>
    </div>
  {/if}
</div>

<style>
  :global(.gauge kbd) {
    border: 1px solid currentColor;
    border-radius: 4px;
    padding: 0 5px;
    font-size: 0.72em;
  }
</style>
