<!-- Every part that views are built from, in both themes, with plain values: only while developing (`npm run dev`, then /gallery). -->
<script lang="ts">
  import Dial from '../../charts/Dial.svelte';
  import SpeedGauge from '../../charts/SpeedGauge.svelte';
  import Stair from '../../charts/Stair.svelte';
  import Turning from '../../charts/Turning.svelte';
  import ActionMenu from '../../ui/ActionMenu.svelte';
  import FilePick from '../../ui/FilePick.svelte';
  import Fold from '../../ui/Fold.svelte';
  import ProgressBar from '../../ui/ProgressBar.svelte';
  import OptionsMenu from '../../ui/OptionsMenu.svelte';
  import Pill from '../../ui/Pill.svelte';
  import Pages from '../../ui/Pages.svelte';
  import Popup from '../../ui/Popup.svelte';
  import Choice from '../../ui/Choice.svelte';
  import CopyTable from '../../ui/CopyTable.svelte';
  import DamageDrawing from '../../ui/DamageDrawing.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import Either from '../../ui/Either.svelte';
  import LightTile from '../../ui/LightTile.svelte';
  import LogSlider from '../../ui/LogSlider.svelte';
  import MachineDrawing from '../../ui/MachineDrawing.svelte';
  import MarkDepth from '../../ui/MarkDepth.svelte';
  import { notices } from '../../ui/notices.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import NumberPad from '../../ui/NumberPad.svelte';
  import Scrolling from '../../ui/Scrolling.svelte';
  import Term from '../../ui/Term.svelte';
  import { TERMS, type TermId } from '../../ui/terms';
  import TextField from '../../ui/TextField.svelte';
  import UnitsChoice from '../../ui/UnitsChoice.svelte';
  import { choices } from '../../api/catalogue.svelte';
  import { shown } from '../../units/shown.svelte';

  let depth = $state(20);
  let way = $state('one');
  let words = $state('Rail collar');
  let mark = $state({ depth_um: 5 } as { depth_um?: number; like?: string; fingernail?: boolean });
  let open = $state(false);
  let page = $state(1);
  const WAYS: { id: string; label: string }[] = [
    { id: 'one', label: 'One way' },
    { id: 'none', label: 'None' },
  ];
  const STEPS = [
    { label: 'Paper P320', grainUm: 46, minutes: 6, fromUm: 30, likelyUm: 20, leavesUm: 4, staysUm: 0 },
    { label: 'Tripoli bar, sisal wheel', grainUm: 15, minutes: 9, fromUm: 4, likelyUm: 4, leavesUm: 0.5, staysUm: 0 },
  ].map((step) => ({
    ...step,
    curve: [
      [0, step.fromUm],
      [step.minutes, step.leavesUm],
    ] as [number, number][],
  }));
  const DRAWING = {
    turns: 'down',
    worker_deg: 180,
    touch_deg: [200, 240] as [number, number],
    where: 'below the middle',
    view: 'side',
  };
</script>

<svelte:head><title>Gallery – Kelbrast</title></svelte:head>

{#snippet part(name: string, what: import('svelte').Snippet)}
  <section class="panel grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-2 p-4" aria-label={name}>
    <h2 class="small dim">{name}</h2>
    {@render what()}
  </section>
{/snippet}
{#snippet fields()}
  <NumberField label="A length" value={depth} quantity="depth" onchange={(value) => (depth = value)} />
  <NumberField
    label="With a fault"
    value={0}
    quantity="length"
    faults={['Must be above 0 mm']}
    onchange={() => undefined}
  />
  <NumberField label="Empty" value={null} quantity="length" placeholder="as in the tables" onchange={() => undefined} />
  <TextField
    label="Words"
    value={words}
    complaint={(text) => (text ? null : 'Say something')}
    onchange={(text) => (words = text)}
  />
  <Choice label="One of many" term="lay" value={way} options={WAYS} onchange={(id) => (way = id)} />
  <Either label="One of few" value={way} options={WAYS} onchange={(id) => (way = id)} />
  <LogSlider
    label="Over decades"
    value={depth}
    low={0.2}
    high={2000}
    say={(value) => shown.say(value, 'depth')}
    onchange={(value) => (depth = value)}
  />
  <UnitsChoice />
{/snippet}
{#snippet buttons()}
  <button class="main-button" onclick={() => (open = true)}>The main one opens a dialog</button>
  <button class="plain-button" onclick={() => notices.say('Done.', 'done')}>A plain one says something</button>
  <button class="plain-button" disabled>One that cannot be pressed</button>
  <p class="text-(--stop)" role="alert">Something is wrong, and what mends it.</p>
  <p class="small dim">Small and quiet.</p>
{/snippet}
{#snippet opening()}
  <ActionMenu
    label="A menu"
    groups={[
      { title: 'Plan', actions: [{ id: 'one', label: 'Do this', shown: 'D', run: () => notices.say('Done.') }] },
      { actions: [{ id: 'two', label: 'Not now', disabled: true }] },
    ]}
  />
  <p>
    <Popup label="A few fields">
      {#snippet face()}Naval brass · 4 pieces{/snippet}
      <Choice label="One of many" value={way} options={WAYS} onchange={(id) => (way = id)} />
    </Popup>
  </p>
  <OptionsMenu groups={[{ actions: [{ id: 'print', label: 'Print', run: () => notices.say('Printed.') }] }]} />
  <FilePick label="A file" accept="image/*" onfiles={([file]) => file && notices.say(file.name)}>Choose a file</FilePick
  >
  <FilePick
    label="Files"
    accept="image/*"
    several
    drop="or drop them here"
    onfiles={(files) => notices.say(`${files.length}`)}>Choose files</FilePick
  >
  <ProgressBar label="How far it is" value={3} max={8} />
  <p class="flex gap-2">
    <Pill said="50 min to spare" kind="good" /><Pill said="20 min late" kind="late" /><Pill said="done" kind="done" />
  </p>
  <Fold label="A line that opens"><p class="small">What is seldom needed.</p></Fold>
  <Pages
    count={120}
    size={50}
    {page}
    said="page {page}"
    before="The page before"
    next="The next page"
    onpage={(next) => (page = next)}
  />
{/snippet}
{#snippet marks()}<MarkDepth {mark} papers={choices.papers} onchange={(next) => (mark = next)} />{/snippet}
{#snippet pad()}<NumberPad near={14.003} ontake={() => undefined} />{/snippet}
{#snippet terms()}
  <p class="flex flex-wrap gap-3">
    {#each Object.keys(TERMS) as of (of)}<span>{of} <Term of={of as TermId} /></span>{/each}
  </p>
{/snippet}
{#snippet scrolling()}
  <Scrolling label="What scrolls" class="h-24 rounded-lg border border-(--line) p-2">
    {#each { length: 12 }, at (at)}<p>Line {at + 1}</p>{/each}
  </Scrolling>
{/snippet}
{#snippet table()}
  <table><tbody><tr><td>P240</td><td>{shown.say(58.5, 'depth')}</td></tr></tbody></table>
  <CopyTable />
{/snippet}
{#snippet machines()}
  <div class="flex flex-wrap gap-2">
    {#each choices.all?.machines ?? [] as one (one.id)}<figure class="text-center">
        <MachineDrawing machine={one.id} />
        <figcaption class="small dim">{one.label}</figcaption>
      </figure>{/each}
  </div>
{/snippet}
{#snippet damages()}
  <div class="flex flex-wrap gap-2">
    {#each choices.all?.damages ?? [] as one (one.id)}<figure class="w-24 text-center">
        <DamageDrawing damage={one.id} />
        <figcaption class="small dim">{one.label}</figcaption>
      </figure>{/each}
  </div>
{/snippet}
{#snippet charts()}
  <div class="h-64">
    <Stair
      steps={STEPS}
      wantedUm={0.6}
      wantedLowUm={null}
      wantedLabel="Bright"
      selected={0}
      onselect={() => undefined}
    />
  </div>
  <SpeedGauge speed={25} band={[20, 35]} limit={40} />
  <div class="flex items-center gap-4">
    <Turning drawing={DRAWING} colour="var(--t3)" />
    <div class="w-56">
      <Dial time="2:40" under="of 6:00" share={0.44} stay={0.3} colour="var(--t3)" drawing={DRAWING} />
    </div>
  </div>
{/snippet}
{#snippet tile()}<LightTile src="/no-such-picture.webp" label="A picture that is not to be had" />{/snippet}

<div class="grid flex-1 gap-0 xl:grid-cols-2">
  {#each ['light', 'dark'] as mode (mode)}
    <div
      data-mode={mode}
      class="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-3 bg-(--paper) p-5 text-(--ink)"
      aria-label="In {mode}"
    >
      <h1>{mode === 'light' ? 'On paper' : 'At night'}</h1>
      {@render part('Fields', fields)}
      {@render part('Buttons and words', buttons)}
      {@render part('What opens', opening)}
      {@render part('How deep a mark is', marks)}
      {@render part('A pad for gloves', pad)}
      {@render part('Words of the trade', terms)}
      {@render part('What scrolls', scrolling)}
      {@render part('A table to copy', table)}
      {@render part('Machines', machines)}
      {@render part('Damage', damages)}
      {@render part('Charts', charts)}
      {@render part('Pictures', tile)}
    </div>
  {/each}
</div>
<Dialog bind:open title="A dialog"><p>It is closed by Escape.</p></Dialog>
