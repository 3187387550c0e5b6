<!-- An invented bore to lap by one's own decisions; at the end, what the program would have done. -->
<script lang="ts">
  import SectionChart from '../../charts/SectionChart.svelte';
  import CopyTable from '../../ui/CopyTable.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import { shown } from '../../units/shown.svelte';
  import { sizeText } from '../../ui/moves';
  import { clock } from '../../units/units';
  import { Practising } from './practising.svelte';

  const LEVELS = [
    { level: 1, label: 'Easy', about: 'a wide tolerance, a little oval, a lap that cuts about as it should' },
    { level: 2, label: 'Usual', about: 'IT7, an egg, and a lap nobody has used before' },
    { level: 3, label: 'Hard', about: 'IT6, more egg than tolerance, and a rate that may be twice or half' },
  ];
  const practising = new Practising();
  let seconds = $state(60);
  const answer = $derived(practising.answer);
  const size = $derived(practising.size);
  const exact = (mm: number) => sizeText(mm, shown.system);
  const newest = $derived(size?.rounds.at(-1)?.readings ?? []);
  const mean = $derived(newest.reduce((sum, one) => sum + one.mm, 0) / Math.max(1, newest.length));
  const um = (mm: number) => (mm - (answer?.form.size_mm ?? 0)) * 1000;

  const begin = (level: number) => void practising.begin(level, Math.floor(Math.random() * 1e6));
</script>

<svelte:head><title>Practice bore – Kelbrast</title></svelte:head>

<div class="mx-auto w-full max-w-6xl flex-1 p-5">
  <h1>Practice bore</h1>
  <p class="small dim mb-4">
    Bring it within its limits in as few rounds as you can. Nobody tells you how fast the lap cuts: read, work, read,
    and stop in time. <a class="underline" href="/gauge">Back to the gauge</a>
  </p>
  {#if !size}
    <div class="grid gap-3 sm:grid-cols-3">
      {#each LEVELS as one (one.level)}
        <button class="plain-button flex-col !items-start p-4 text-left" onclick={() => begin(one.level)}>
          <span class="text-xl">{one.label}</span><span class="small dim font-normal">{one.about}</span>
        </button>
      {/each}
    </div>
  {:else}
    <div class="grid gap-5 lg:grid-cols-[minmax(0,1fr)_20rem]">
      <div class="flex min-w-0 flex-col gap-4">
        <p>
          A bronze bore of {exact(size.want.limits_mm?.[0] ?? 0)} to {exact(size.want.limits_mm?.[1] ?? 0)}
          {shown.unit('length')}, {shown.say(size.length_mm, 'length', 3)} long; a lap of grade {size.lap?.grade}; a
          gauge that repeats within {shown.say(size.gauge.repeatability_um, 'depth')}. Bore number {practising.seed}.
        </p>
        {#if practising.end}
          {@const end = practising.end}
          <section
            class="rounded-xl border-2 p-5 {end.on_size ? 'border-(--go)' : 'border-(--stop)'}"
            aria-label="How it ended"
            role="status"
          >
            <p class="text-4xl font-bold">{end.points} points</p>
            <p class="text-lg">{shown.tell(end.said)}</p>
            <p>
              The program, with the same gauge and as little knowledge, ends at {exact(end.program_size_mm)}
              {shown.unit('length')} after {end.program_rounds} rounds; you took {practising.worked.length + 1}. In the
              first round it works only as long as the quickest lap that is to be expected could be borne; from then on
              it knows the rate from what grew, and stops where all readings together are sure of the lower limit.
            </p>
            <div class="mt-3 flex flex-wrap gap-2">
              <button class="main-button" onclick={() => begin(practising.level)}>Another</button>
              <button class="plain-button" onclick={() => void practising.begin(practising.level, practising.seed)}
                >The same again</button
              >
              <button class="plain-button" onclick={() => begin(Math.min(3, practising.level + 1))}>A harder one</button
              >
            </div>
          </section>
        {:else}
          <div class="flex flex-wrap items-end gap-3">
            <button class="main-button min-h-12" onclick={() => void practising.look()}
              >{answer ? 'Read it' : 'Measure it everywhere'}</button
            >
            {#if answer}
              <div class="w-36">
                <NumberField label="Work, seconds" value={seconds} onchange={(value) => (seconds = value)} />
              </div>
              <button class="plain-button min-h-12" onclick={() => practising.work(seconds)}
                >Lap for {clock(seconds)}</button
              >
              <button class="plain-button min-h-12 !border-(--stop)" onclick={() => void practising.stop()}
                >Stop here</button
              >
            {/if}
          </div>
          {#if answer && !practising.read}<p role="status">It was worked and not read since.</p>{/if}
        {/if}
        {#if size.rounds.some((round) => round.readings.length)}
          <table class="w-full" aria-label="Rounds">
            <thead
              ><tr class="small dim text-left [&>th]:pr-4"
                ><th>Round</th><th>Worked</th><th>Readings</th><th>Mean</th></tr
              ></thead
            >
            <tbody>
              {#each size.rounds as round, at (at)}
                <tr class="num border-t border-(--line) [&>td]:pr-4">
                  <td>{at + 1}</td>
                  <td>{round.worked_s ? clock(round.worked_s) : '–'}</td>
                  <td class="py-1">{round.readings.map((one) => exact(one.mm)).join('  ') || 'not read'}</td>
                  <td
                    >{round.readings.length
                      ? exact(round.readings.reduce((sum, one) => sum + one.mm, 0) / round.readings.length)
                      : '–'}</td
                  >
                </tr>
              {/each}
            </tbody>
          </table>
          <CopyTable />
        {/if}
      </div>
      {#if answer}
        <aside>
          <SectionChart
            section={{
              mean: 0,
              oval: answer.form.oval_um ?? 0,
              widest: answer.form.widest_deg ?? 0,
              now: um(
                practising.worked.length && newest.length
                  ? mean
                  : answer.form.size_mm - (answer.form.oval_um ?? 0) / 2000,
              ),
              low: um(answer.limits_mm[0]),
              high: um(answer.limits_mm[1]),
              kind: 'bore',
            }}
            diameter={answer.form.size_mm}
            words="Section of the practice bore with its limits"
          />
          <p class="small dim">Black: the part. Dashed: the two limits. Green: the lap, as you read it last.</p>
        </aside>
      {/if}
    </div>
  {/if}
</div>
