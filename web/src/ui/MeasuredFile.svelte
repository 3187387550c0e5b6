<!-- A measured profile from a file: read, evaluated and shown with its cut-off, filter and bearing curve. -->
<script lang="ts" generics="Measured extends { kind: string }">
  import type { Snippet } from 'svelte';
  import { Answer } from './answer.svelte';
  import Choice from './Choice.svelte';
  import Either from './Either.svelte';
  import FilePick from './FilePick.svelte';

  interface Props {
    read: (file: Blob, units: { x_unit: 'mm' | 'um'; z_unit: 'mm' | 'um' }, form: number) => Promise<Measured>;
    shown: Snippet<[Measured, string]>;
  }
  let { read, shown }: Props = $props();
  let x_unit = $state<'mm' | 'um'>('mm');
  let z_unit = $state<'mm' | 'um'>('um');
  let form = $state(1);
  let file = $state.raw<File | null>(null);
  const answer = new Answer<Measured>();
  $effect(() => {
    if (file) return answer.ask(read(file, { x_unit, z_unit }, form), true);
  });
  /** Degrees of the polynomial that is taken off before the roughness is evaluated. */
  const FORMS = ['The level', 'A slope', 'A bow'].map((label, degree) => ({ id: String(degree), label }));
  for (let degree = 3; degree <= 12; degree++) FORMS.push({ id: String(degree), label: `Degree ${degree}` });
  const UNITS = [
    { id: 'mm', label: 'mm' },
    { id: 'um', label: 'µm' },
  ] as const;
</script>

<div class="flex flex-wrap items-end gap-3">
  <FilePick
    label="Profile file"
    accept=".csv,.txt,.x3p,.sdf,text/plain,text/csv"
    onfiles={([one]) => (file = one ?? null)}>Profile file</FilePick
  >
  <div class="w-28">
    <span class="small dim block">Places in</span>
    <Either label="Places in" value={x_unit} options={UNITS} onchange={(unit) => (x_unit = unit)} />
  </div>
  <div class="w-28">
    <span class="small dim block">Heights in</span>
    <Either label="Heights in" value={z_unit} options={UNITS} onchange={(unit) => (z_unit = unit)} />
  </div>
  <div class="w-40">
    <Choice
      label="Form taken off"
      value={String(form)}
      options={FORMS}
      onchange={(degree) => (form = Number(degree))}
    />
  </div>
</div>
<p class="small dim mt-1">CSV or text with two columns, X3P or SDF; the last two carry their own units.</p>
{#if answer.trouble}<p class="mt-2 text-(--stop)" role="alert">{answer.trouble}</p>
{:else if answer.value && file}{@render shown(answer.value, file.name)}{/if}
