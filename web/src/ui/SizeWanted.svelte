<!-- The size that is wanted: by limits, a class, deviations from a nominal size, or a mate with its clearance. -->
<script lang="ts">
  import type { Snippet } from 'svelte';
  import Either from './Either.svelte';
  import NumberField from './NumberField.svelte';
  import TextField from './TextField.svelte';

  /** As in the files; one of the ways is given. */
  interface Want {
    limits_mm?: [number, number] | null;
    nominal_mm?: number | null;
    deviation_um?: [number, number] | null;
    class?: string | null;
    mate_mm?: number | null;
    clearance_um?: [number, number] | null;
  }
  interface Props {
    kind: 'bore' | 'shaft';
    want: Want;
    onchange: (want: Want) => void;
    /** The size that words of a drawing want. */
    read: (text: string) => Promise<Want>;
    /** What the server says is wrong with a field, by its name in the file. */
    faults?: (field: string) => string[];
    /** Words of a drawing are being read: a form waits for that. */
    onread?: (reading: Promise<unknown>) => void;
    /** Parts that may be the mate, chosen by name. */
    mates?: Snippet;
  }
  let { kind, want, onchange, read, faults = () => [], onread, mates }: Props = $props();
  const way = $derived(want.limits_mm ? 'limits' : want.mate_mm ? 'mate' : want.deviation_um ? 'deviation' : 'class');
  const about = $derived(want.limits_mm?.[0] ?? want.nominal_mm ?? want.mate_mm ?? 20);
  const classFaults = $derived(faults('class'));

  function choose(next: 'limits' | 'class' | 'deviation' | 'mate') {
    if (next === 'limits') onchange({ limits_mm: [about, about + 0.02] });
    else if (next === 'class') onchange({ nominal_mm: about, class: kind === 'bore' ? 'H7' : 'g6' });
    else if (next === 'deviation') onchange({ nominal_mm: about, deviation_um: kind === 'bore' ? [0, 20] : [-20, 0] });
    else onchange({ mate_mm: about, clearance_um: [7, 20] });
  }
  let refused = $state<string[]>([]);
  /** As the drawing says it: the server reads it, and what it could not read stays to be mended. */
  async function drawn(text: string) {
    try {
      onchange(await read(text));
      refused = [];
    } catch (problem) {
      refused = [(problem as Error).message];
    }
  }
  function say(text: string) {
    if (!text.trim()) refused = [];
    else {
      const reading = drawn(text);
      onread?.(reading);
    }
  }
  const pair = (both: [number, number] | null | undefined): [number, number] => both ?? [0, 0];
</script>

{#snippet size(label: string, key: 'nominal_mm' | 'mate_mm', value: number | null | undefined)}
  <NumberField
    {label}
    {value}
    quantity="size"
    faults={faults(key)}
    onchange={(mm) => onchange({ ...want, [key]: mm })}
  />
  <span></span>
{/snippet}
{#snippet ends(first: string, second: string, key: 'deviation_um' | 'clearance_um', [low, high]: [number, number])}
  <NumberField
    label={first}
    value={low}
    quantity="depth"
    signed
    faults={faults(key)}
    onchange={(um) => onchange({ ...want, [key]: [um, high] })}
  />
  <NumberField
    label={second}
    value={high}
    quantity="depth"
    signed
    onchange={(um) => onchange({ ...want, [key]: [low, um] })}
  />
{/snippet}

<div class="grid gap-1.5">
  <Either
    label="Wanted by"
    value={way}
    options={[
      { id: 'limits', label: 'Limits' },
      { id: 'class', label: 'Class' },
      { id: 'deviation', label: 'Deviations' },
      { id: 'mate', label: 'Its mate' },
    ]}
    onchange={choose}
  />
  <TextField
    label="As the drawing says it"
    placeholder={kind === 'bore' ? '25 H7' : '25 -0.005'}
    value=""
    lazy
    faults={refused}
    complaint={() => null}
    onchange={say}
  />
  {#if way === 'mate'}{@render mates?.()}{/if}
  <div class="grid grid-cols-2 gap-2">
    {#if way === 'limits'}
      {@const [low, high] = pair(want.limits_mm)}
      <NumberField
        label="At least"
        value={low}
        quantity="size"
        faults={faults('limits_mm')}
        onchange={(mm) => onchange({ limits_mm: [mm, high] })}
      />
      <NumberField label="At most" value={high} quantity="size" onchange={(mm) => onchange({ limits_mm: [low, mm] })} />
    {:else if way === 'class'}
      <NumberField
        label="Nominal size"
        value={want.nominal_mm}
        quantity="size"
        faults={faults('nominal_mm')}
        onchange={(nominal_mm) => onchange({ ...want, nominal_mm })}
      />
      <TextField
        label="Class, as in H7 or g6"
        value={want.class ?? ''}
        onchange={(written) => onchange({ nominal_mm: want.nominal_mm, class: written })}
        complaint={() => null}
      />
    {:else if way === 'deviation'}
      {@render size('Nominal size', 'nominal_mm', want.nominal_mm)}
      {@render ends('Lower deviation', 'Upper deviation', 'deviation_um', pair(want.deviation_um))}
    {:else}
      {@render size('The mate measures', 'mate_mm', want.mate_mm)}
      {@render ends('Clearance, at least', 'At most', 'clearance_um', pair(want.clearance_um))}
    {/if}
  </div>
  {#if way === 'class' && classFaults.length}<p class="small text-(--stop)" role="alert">
      {classFaults.join(' ')}
    </p>{/if}
</div>
