<!-- What is worked to size: bore or shaft, its limits, how long it is, with which gauge it is read and what cuts it. -->
<script lang="ts">
  import { tick } from 'svelte';
  import { api, type KeptSizing, type SizeFile } from '../../api/client';
  import { choices } from '../../api/catalogue.svelte';
  import { notices } from '../../ui/notices.svelte';
  import Choice from '../../ui/Choice.svelte';
  import OwnChoice from '../../own/OwnChoice.svelte';
  import Either from '../../ui/Either.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import SizeWanted from '../../ui/SizeWanted.svelte';
  import TextField from '../../ui/TextField.svelte';
  import { understood } from '../../ui/understood';

  let { parts, onadded }: { parts: KeptSizing[]; onadded: (part: KeptSizing) => void } = $props();
  type By = 'lap' | 'file' | 'cloth';
  let title = $state('');
  let kind = $state<'bore' | 'shaft'>('bore');
  let material = $state('bronze');
  let want = $state.raw<SizeFile['want']>({ limits_mm: [20.0, 20.021] });
  let length = $state(40);
  let marks = $state<number | null>(4);
  let repeatability = $state(3);
  let by = $state<By>('lap');
  let grade = $state('F400');

  /** Parts of the other kind that were measured: each may be the mate. */
  const others = $derived(parts.filter((one) => one.size.kind !== kind && one.answer !== null));

  function takeMate(id: string) {
    const one = others.find((part) => String(part.id) === id);
    if (one?.answer) want = { mate_mm: one.answer.now_mm, clearance_um: want.clearance_um ?? [7, 20] };
  }

  /** What the drawing says, while it is being read: nothing is made of the part before that. */
  let reading: Promise<unknown> = Promise.resolve();
  let form = $state<HTMLFormElement>();

  /** What is wanted; a class says by its letter whether it is a bore or a shaft. */
  function take(next: SizeFile['want']) {
    want = next;
    if (next.class) kind = next.class === next.class.toLowerCase() ? 'shaft' : 'bore';
  }

  async function add() {
    await reading;
    await tick();
    if (!understood(form)) return;
    const size: SizeFile = {
      kelbrast: 'size/1',
      title: title.trim() || (kind === 'bore' ? 'Bore' : 'Shaft'),
      material,
      kind,
      length_mm: length,
      want,
      marks_um: marks ?? 0,
      gauge: { repeatability_um: repeatability },
      ...(by === 'lap' ? { lap: { grade } } : { lathe: { turned_by: by } }),
      rounds: [{ worked_s: 0, readings: [] }],
    };
    try {
      onadded(await api.addSizing(size));
    } catch (problem) {
      notices.say((problem as Error).message, 'trouble');
    }
  }

  function setKind(next: 'bore' | 'shaft') {
    kind = next;
    if (want.class) want = { ...want, class: next === 'bore' ? want.class.toUpperCase() : want.class.toLowerCase() };
  }
</script>

<section class="h-fit rounded-lg border border-(--line) bg-(--card) p-4" aria-label="A new part">
  <h2 class="mb-3">A new part</h2>
  <form
    bind:this={form}
    class="flex flex-col gap-3"
    onsubmit={(event) => {
      event.preventDefault();
      void add();
    }}
  >
    <TextField label="Name" value={title} onchange={(text) => (title = text)} complaint={() => null} />
    <Either
      label="Bore or shaft"
      value={kind}
      options={[
        { id: 'bore', label: 'Bore' },
        { id: 'shaft', label: 'Shaft' },
      ]}
      onchange={setKind}
    />
    <OwnChoice
      label="Material"
      kind="material"
      value={material}
      options={choices.materials}
      onchange={(id) => (material = id)}
    />
    <SizeWanted {kind} {want} read={api.drawnSize} onchange={take} onread={(read) => (reading = read)}>
      {#snippet mates()}
        {#if others.length}
          <Choice
            label="The mate"
            value=""
            options={[
              { id: '', label: 'Measured elsewhere' },
              ...others.map((one) => ({ id: String(one.id), label: one.size.title })),
            ]}
            onchange={takeMate}
          />
        {/if}
      {/snippet}
    </SizeWanted>
    <div class="grid grid-cols-2 gap-3">
      <NumberField label="Length" value={length} quantity="length" onchange={(mm) => (length = mm)} />
      <NumberField
        label="Marks, how deep"
        value={marks}
        quantity="depth"
        onchange={(um) => (marks = um)}
        onclear={() => (marks = null)}
      />
      <NumberField
        label="Gauge repeats within"
        value={repeatability}
        quantity="depth"
        onchange={(um) => (repeatability = um)}
      />
    </div>
    <Either
      label="Worked with"
      value={by}
      options={[
        { id: 'lap', label: 'Lap' },
        { id: 'file', label: 'File' },
        { id: 'cloth', label: 'Cloth' },
      ]}
      onchange={(next) => (by = next)}
    />
    {#if by === 'lap'}
      <Choice
        label="Grade of the lap"
        value={grade}
        options={['F240', 'F320', 'F400', 'F500', 'F600', 'F800', 'F1000', 'F1200', '6um', '3um'].map((id) => ({
          id,
          label: id,
        }))}
        onchange={(id) => (grade = id)}
      />
    {/if}
    <button class="main-button" type="submit">To the gauge</button>
  </form>
</section>
