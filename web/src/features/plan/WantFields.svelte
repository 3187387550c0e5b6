<!-- What the face should become: a finish by what it is for, or a band of Ra as on a drawing. -->
<script lang="ts">
  import { choices, isOwn, OURS } from '../../api/catalogue.svelte';
  import type { Face, Want } from '../../api/client';
  import Choice from '../../ui/Choice.svelte';
  import OwnChoice from '../../own/OwnChoice.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import { shown } from '../../units/shown.svelte';
  import type { JobDraft } from './draft.svelte';

  const OWN = 'own-band';
  let { draft, face }: { draft: JobDraft; face: Face } = $props();
  const want = $derived(face.want);
  const finish = $derived(want.finish ? choices.finish(want.finish) : undefined);
  const options = $derived([
    ...(choices.all?.finishes ?? []).map((one) => ({
      id: one.id,
      label: one.label,
      group: isOwn(one.id) ? OURS : one.id.startsWith('N') ? 'From a drawing' : 'By use',
    })),
    { id: OWN, label: 'Own band of Ra', group: 'From a drawing' },
  ]);

  /** The use last chosen, for as long as the finish is the one it led to. */
  let chosen = $state('');
  const use = $derived(choices.all?.uses.find((one) => one.id === chosen && one.finish === want.finish));

  function forUse(id: string) {
    chosen = id;
    const found = choices.all?.uses.find((one) => one.id === id);
    if (found) change({ finish: found.finish, no_finer_than: found.no_finer_than ?? undefined });
  }

  function choose(id: string) {
    const [low, high] = finish?.ra_um ?? [null, 0.4];
    change(
      id === OWN
        ? { ra_um: [low, high ?? 0.4], lay: 'any' }
        : { finish: id, no_finer_than: choices.finish(id)?.no_finer_than ?? undefined },
    );
  }

  function change(next: Want) {
    draft.changeFace({ want: next });
  }

  function end(at: 0 | 1, value: number | null) {
    const [low, high] = want.ra_um ?? [null, null];
    const next: [number | null, number | null] = at === 0 ? [value, high] : [low, value];
    if (next[0] === null && next[1] === null) return;
    change({ ...want, ra_um: next });
  }
</script>

<div class="grid gap-1.5">
  <Choice
    label="What it is for"
    value={use?.id ?? ''}
    options={[{ id: '', label: 'Choose a use, or a finish below' }, ...(choices.all?.uses ?? [])]}
    onchange={forUse}
  />
  {#if use}<p class="small dim">{shown.tell(use.reason_said)}</p>{/if}
  <OwnChoice label="Finish" kind="finish" value={want.finish ?? OWN} {options} onchange={choose} />
  {#if finish && !use}<p class="small dim">{shown.tell(finish.purpose_said)}</p>{/if}
  {#if finish?.no_finer_than}
    <Choice
      label="No finer than"
      value={want.no_finer_than ?? finish.no_finer_than}
      options={choices.papers}
      onchange={(no_finer_than) => change({ finish: want.finish, no_finer_than })}
    />
  {/if}
  {#if want.ra_um}
    <div class="grid grid-cols-2 gap-2">
      <NumberField
        label="Ra from"
        quantity="roughness"
        value={want.ra_um[0]}
        placeholder="no end"
        faults={draft.faultsOf('want')}
        onchange={(v) => end(0, v)}
        onclear={() => end(0, null)}
      />
      <NumberField
        label="Ra to"
        quantity="roughness"
        value={want.ra_um[1]}
        placeholder="no end"
        onchange={(v) => end(1, v)}
        onclear={() => end(1, null)}
      />
    </div>
    <Choice
      label="Lay"
      term="lay"
      value={want.lay ?? 'any'}
      options={choices.all?.lays ?? []}
      onchange={(lay) => change({ ...want, lay })}
    />
  {/if}
</div>
