<!-- What is worked to size: bore or shaft, its limits, how long it is, with which gauge it is read and what cuts it. -->
<script lang="ts">
  import { searchParams } from 'sv-router';
  import { api, type KeptSizing, type SizeFile } from '../../api/client';
  import { choices } from '../../api/catalogue.svelte';
  import { notices } from '../../ui/notices.svelte';
  import Choice from '../../ui/Choice.svelte';
  import Either from '../../ui/Either.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import TextField from '../../ui/TextField.svelte';

  let { parts, onadded }: { parts: KeptSizing[]; onadded: (part: KeptSizing) => void } = $props();
  type By = 'lap' | 'file' | 'cloth';
  type Ways = 'limits' | 'class' | 'mate';
  let title = $state('');
  let kind = $state<'bore' | 'shaft'>('bore');
  let material = $state('bronze');
  let way = $state<Ways>('limits');
  let [low, high] = $state([20.0, 20.021]);
  let nominal = $state(20);
  let written = $state('H7');
  let mate = $state(20);
  let [least, most] = $state([7, 20]);
  let length = $state(40);
  let marks = $state<number | null>(4);
  let repeatability = $state(3);
  let by = $state<By>('lap');
  let grade = $state('F400');

  /** Parts of the other kind that were measured: each may be the mate. */
  const mates = $derived(parts.filter((one) => one.size.kind !== kind && one.answer !== null));

  function takeMate(id: string) {
    const one = mates.find((part) => String(part.id) === id);
    if (one?.answer) mate = one.answer.now_mm;
  }

  takeFace();

  /** A face of a job that is to be worked to size comes in the address. */
  function takeFace() {
    const [of, from, mm, long] = ['kind', 'title', 'mm', 'length'].map((key) => searchParams.get(key));
    if (of !== 'bore' && of !== 'shaft') return;
    setKind(of);
    way = 'class';
    written = of === 'bore' ? 'H7' : 'g6';
    title = typeof from === 'string' ? from : title;
    material = String(searchParams.get('material') ?? material);
    nominal = Number(mm) > 0 ? Number(mm) : nominal;
    length = Number(long) > 0 ? Number(long) : length;
  }

  const want = $derived<SizeFile['want']>(
    way === 'limits'
      ? { limits_mm: [low, high] }
      : way === 'class'
        ? { nominal_mm: nominal, class: written }
        : { mate_mm: mate, clearance_um: [least, most] },
  );

  async function add() {
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
    written = next === 'bore' ? written.toUpperCase() : written.toLowerCase();
  }
</script>

<section class="h-fit rounded-lg border border-(--line) bg-(--card) p-4" aria-label="A new part">
  <h2 class="mb-3">A new part</h2>
  <form
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
    <Choice
      label="Material"
      value={material}
      options={(choices.all?.materials ?? []).map((one) => ({ id: one.id, label: one.label }))}
      onchange={(id) => (material = id)}
    />
    <Either
      label="Wanted by"
      value={way}
      options={[
        { id: 'limits', label: 'Limits' },
        { id: 'class', label: 'Class' },
        { id: 'mate', label: 'Its mate' },
      ]}
      onchange={(next) => (way = next)}
    />
    <div class="grid grid-cols-2 gap-3">
      {#if way === 'limits'}
        <NumberField label="At least" value={low} quantity="length" onchange={(mm) => (low = mm)} />
        <NumberField label="At most" value={high} quantity="length" onchange={(mm) => (high = mm)} />
      {:else if way === 'class'}
        <NumberField label="Nominal size" value={nominal} quantity="length" onchange={(mm) => (nominal = mm)} />
        <TextField
          label="Class, as in H7 or g6"
          value={written}
          onchange={(text) => (written = text)}
          complaint={() => null}
        />
      {:else}
        {#if mates.length}
          <div class="col-span-2">
            <Choice
              label="The mate"
              value=""
              options={[
                { id: '', label: 'Measured elsewhere' },
                ...mates.map((one) => ({ id: String(one.id), label: one.size.title })),
              ]}
              onchange={takeMate}
            />
          </div>
        {/if}
        <NumberField label="The mate measures" value={mate} quantity="length" onchange={(mm) => (mate = mm)} />
        <NumberField label="Clearance, least" value={least} quantity="depth" onchange={(um) => (least = um)} />
        <NumberField label="Clearance, most" value={most} quantity="depth" onchange={(um) => (most = um)} />
      {/if}
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
