<!-- A shaft and its bore beside each other: the clearance that there is, which of them to take how far, and the trial. -->
<script lang="ts">
  import { searchParams } from 'sv-router';
  import { onMount } from 'svelte';
  import { api, type KeptSizing, type PairAnswer, type SizeAnswer } from '../../api/client';
  import { navigate } from '../../app/router';
  import SectionChart from '../../charts/SectionChart.svelte';
  import { Answer } from '../../ui/answer.svelte';
  import Choice from '../../ui/Choice.svelte';
  import { sizeText } from '../../ui/moves';
  import NumberField from '../../ui/NumberField.svelte';
  import { notices } from '../../ui/notices.svelte';
  import { shown } from '../../units/shown.svelte';
  import { duration } from '../../units/units';

  let parts = $state.raw<KeptSizing[]>([]);
  let chosen = $state<{ bore: string; shaft: string }>({ bore: '', shaft: '' });
  let least = $state(7);
  let most = $state(20);
  const answer = new Answer<PairAnswer>();
  const kinds = ['bore', 'shaft'] as const;
  const NAMES = { bore: 'Bore', shaft: 'Shaft' };
  const measured = $derived(parts.filter((part) => part.answer !== null));
  const of = (kind: 'bore' | 'shaft') => measured.filter((part) => part.size.kind === kind);
  const part = (kind: 'bore' | 'shaft') => measured.find((one) => String(one.id) === chosen[kind]);
  const mm = (value: number) => `${sizeText(value, shown.system)} ${shown.unit('length')}`;

  onMount(async () => {
    try {
      parts = (await api.sizings(100)).sizes;
      for (const kind of kinds) {
        const asked = Number(searchParams.get(kind));
        chosen[kind] = String((of(kind).find((one) => one.id === asked) ?? of(kind)[0])?.id ?? '');
      }
      ask();
    } catch (problem) {
      notices.say((problem as Error).message, 'trouble');
    }
  });

  function ask() {
    const [bore, shaft] = [part('bore')?.size, part('shaft')?.size];
    if (bore && shaft) answer.ask(api.fitPair({ bore, shaft, clearance_um: [least, most] }));
  }

  /** The part goes to its gauge with the mate as what is wanted. */
  async function work(kind: 'bore' | 'shaft', to: PairAnswer) {
    const one = part(kind);
    if (!one) return;
    const mate = kind === 'bore' ? to.shaft.now_mm : to.bore.now_mm;
    const want = { mate_mm: mate, clearance_um: [least, most] as [number, number] };
    try {
      await api.changeSizing(one.id, { ...one.size, want }, one.revision);
      await navigate('/gauge/:id', { params: { id: String(one.id) } });
    } catch (problem) {
      notices.say((problem as Error).message, 'trouble');
    }
  }

  function section(one: SizeAnswer) {
    const um = (value: number) => (value - one.form.size_mm) * 1000;
    return {
      mean: 0,
      oval: one.form.oval_um ?? one.form.oval_at_least_um ?? 0,
      widest: one.form.widest_deg ?? 0,
      now: um(one.now_mm),
      low: um(one.limits_mm[0]),
      high: um(one.limits_mm[1]),
      kind: one.kind as 'bore' | 'shaft',
    };
  }
  const form = (value: number | null) => (value === null ? 'not to be told' : shown.say(value, 'depth'));
</script>

<svelte:head><title>A shaft and its bore – Kelbrast</title></svelte:head>

<div class="mx-auto w-full max-w-6xl flex-1 p-5">
  <h1>A shaft and its bore</h1>
  <p class="small dim mb-4"><a class="underline" href="/gauge">All parts at the gauge</a></p>
  {#if parts.length && (!of('bore').length || !of('shaft').length)}
    <p>A measured bore and a measured shaft are needed: take the readings of both at the gauge first.</p>
  {/if}
  <div class="mb-4 grid max-w-4xl items-end gap-3 sm:grid-cols-4">
    {#each kinds as kind (kind)}
      <Choice
        label={NAMES[kind]}
        value={chosen[kind]}
        options={of(kind).map((one) => ({ id: String(one.id), label: one.size.title }))}
        onchange={(id) => {
          chosen[kind] = id;
          ask();
        }}
      />
    {/each}
    <NumberField
      label="Clearance wanted, least"
      value={least}
      quantity="depth"
      signed
      onchange={(um) => {
        least = um;
        ask();
      }}
    />
    <NumberField
      label="And most"
      value={most}
      quantity="depth"
      signed
      onchange={(um) => {
        most = um;
        ask();
      }}
    />
  </div>
  {#if answer.trouble}<p class="text-(--stop)" role="alert">{answer.trouble}</p>{/if}
  {#if answer.value}
    {@const found = answer.value}
    <section
      class="mb-5 rounded-xl border-2 p-5 {found.verdict === 'fits' ? 'border-(--go)' : 'border-(--stop)'}"
      aria-label="Clearance"
      aria-live="polite"
    >
      <p class="text-2xl font-bold" data-testid="verdict">{shown.tell(found.said)}</p>
      <p class="mt-1">
        Clearance {shown.bare(found.least_um, 'depth', 3)} where they are tightest to {shown.say(
          found.most_um,
          'depth',
          3,
        )} where there is most room, ± {shown.say(found.pm_um, 'depth')}. Both ten kelvins warmer: {found.warmer_um < 0
          ? ''
          : '+'}{shown.say(found.warmer_um, 'depth')}.
      </p>
      {#each found.takes as take (take.kind)}
        <p class="mt-3 text-xl">
          <b>Take the {take.kind} to {mm(take.to_mm)}</b>: {shown.say(take.off_um, 'depth', 3)} on the diameter, about {duration(
            take.seconds / 60,
          )}. {shown.tell(take.why_said)}
          <button class="plain-button ml-2" onclick={() => void work(take.kind, found)}>To its gauge</button>
        </p>
      {/each}
      <p class="mt-3"><b>The trial:</b> {shown.tell(found.trial)}</p>
    </section>
    <div class="grid gap-5 sm:grid-cols-2">
      {#each kinds as kind (kind)}
        {@const one = found[kind]}
        <section class="rounded-lg border border-(--line) bg-(--card) p-4" aria-label={NAMES[kind]}>
          <h2>{one.title}</h2>
          <SectionChart
            section={section(one)}
            diameter={one.form.size_mm}
            words="{NAMES[kind]}: now {mm(one.now_mm)}, {Math.round(100 * one.share)} % of it clean"
          />
          <dl class="grid grid-cols-[auto_1fr] gap-x-4">
            <dt class="dim">Tightest</dt>
            <dd class="num">{mm(one.now_mm)} ± {shown.say(one.now_pm_um, 'depth')}</dd>
            <dt class="dim">Oval</dt>
            <dd>{form(one.form.oval_um)}</dd>
            <dt class="dim">Taper</dt>
            <dd>{form(one.form.taper_um)}</dd>
            <dt class="dim">Own limits</dt>
            <dd class="num">{sizeText(one.limits_mm[0], shown.system)} to {mm(one.limits_mm[1])}</dd>
          </dl>
        </section>
      {/each}
    </div>
  {/if}
</div>
