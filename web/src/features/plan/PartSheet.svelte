<!-- What holds for the whole part, and how the person works: coats, inserts, weight, protection, schools. -->
<script lang="ts">
  import X from '@lucide/svelte/icons/x';
  import { choices } from '../../api/catalogue.svelte';
  import type { Choice as Way, Job } from '../../api/client';
  import Choice from '../../ui/Choice.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import { shown } from '../../units/shown.svelte';
  import { difference } from '../../units/units';
  import type { JobDraft } from './draft.svelte';

  let { draft, open = $bindable() }: { draft: JobDraft; open: boolean } = $props();
  const all = $derived(choices.all);
  const own = $derived(draft.fromRack);
  const inserts = $derived(draft.job.inserts ?? []);

  function change(change: Partial<Job>) {
    Object.assign(draft.job, change);
    draft.changed();
  }

  function toggleInsert(id: string, on: boolean) {
    const next = on ? [...inserts, id] : inserts.filter((one) => one !== id);
    change({ inserts: next as Job['inserts'] });
  }

  const extras = $derived(draft.job.extras ?? []);
  const labelOf = (id: string) =>
    [...(all?.tools ?? []), ...(all?.machines ?? [])].find((one) => one.id === id)?.label ?? id;
  const extraOptions = $derived(
    [
      ...(all?.tools ?? []).map((one) => ({ id: one.id, label: one.label, group: 'Tools' })),
      ...(all?.machines ?? []).map((one) => ({ id: one.id, label: one.label, group: 'Machines' })),
    ].filter((one) => !extras.includes(one.id)),
  );

  /** Machines named in the rack are the only ones; a rack that names none has them all. */
  const machines = $derived((all?.machines ?? []).filter((one) => one.id !== 'hand'));
  const named = $derived((draft.job.rack ?? []).filter((id) => all?.machines.some((one) => one.id === id)));
  const atHand = (id: string) => !named.length || named.includes(id);

  function toggleMachine(id: string, on: boolean) {
    const tools = (draft.job.rack ?? []).filter((one) => !named.includes(one));
    const kept = machines.map((one) => one.id).filter((one) => (one === id ? on : atHand(one)));
    const rack = kept.length === machines.length ? tools : [...tools, 'hand', ...kept];
    change({ rack: rack.length ? rack : undefined });
  }

  /** Each way with what it costs in minutes against the best of its kind. */
  function costed(ways: Way[] | undefined, id: (way: Way) => string) {
    const best = Math.min(...(ways ?? []).filter((way) => way.possible).map((way) => way.minutes));
    return (ways ?? []).map((way) => {
      const more = way.possible && way.minutes - best >= 0.25 ? `, ${difference(way.minutes - best)}` : '';
      return { id: id(way), label: way.label + (way.kept ? more : `${more}, as far as the rack allows`) };
    });
  }
</script>

<Dialog bind:open title="The part and the ways of working">
  <div class="grid gap-x-4 gap-y-2.5 sm:grid-cols-2">
    <Choice
      label="Covered by"
      value={draft.job.covering ?? 'bare'}
      options={all?.coverings ?? []}
      onchange={(covering) => change({ covering })}
    />
    <Choice
      label="Protected at the end by"
      value={draft.job.protect ?? 'usual'}
      options={all?.protections ?? []}
      onchange={(protect) => change({ protect })}
    />
    <NumberField
      label="Weight of the part"
      value={draft.job.mass_g}
      quantity="mass"
      placeholder="not weighed"
      onchange={(mass_g) => change({ mass_g })}
      onclear={() => change({ mass_g: undefined })}
    />
    <NumberField
      label="Pieces in a lot"
      value={draft.job.lot}
      integer
      placeholder="as many as go"
      onchange={(lot) => change({ lot })}
      onclear={() => change({ lot: null })}
    />
    <Choice
      label="Held at bench machines"
      value={draft.job.held ?? 'hand'}
      options={all?.held ?? []}
      onchange={(held) => change({ held })}
    />
    <Choice
      label="Water"
      value={draft.job.wet ?? 'needed'}
      options={all?.wet ?? []}
      onchange={(wet) => change({ wet })}
    />
    <fieldset class="sm:col-span-2">
      <legend class="small dim">Fitted parts that stay in</legend>
      {#each all?.inserts ?? [] as insert (insert.id)}
        <label class="flex gap-2 py-0.5">
          <input
            type="checkbox"
            checked={inserts.includes(insert.id as never)}
            onchange={(event) => toggleInsert(insert.id, event.currentTarget.checked)}
          />
          <span
            >{insert.label}
            <span class="small dim">below {shown.say(insert.limit_c, 'temperature')}. {insert.word}</span></span
          >
        </label>
      {/each}
    </fieldset>
    {#if !own}
      <fieldset class="sm:col-span-2">
        <legend class="small dim">Machines at hand, besides the hand itself</legend>
        <div class="grid gap-x-4 sm:grid-cols-2">
          {#each machines as machine (machine.id)}
            <label class="flex items-baseline gap-2 py-0.5">
              <input
                type="checkbox"
                checked={atHand(machine.id)}
                onchange={(event) => toggleMachine(machine.id, event.currentTarget.checked)}
              />
              {machine.label}
            </label>
          {/each}
        </div>
      </fieldset>
    {/if}
    {#if own}
      <label class="flex items-center gap-2 self-end pb-1.5">
        <input
          type="checkbox"
          checked={draft.job.insist}
          onchange={(event) => change({ insist: event.currentTarget.checked })}
        />
        Use what is kept for something else too, with a warning
      </label>
      <div class="sm:col-span-2">
        <Choice
          label="Besides, as if it were there"
          value=""
          options={[{ id: '', label: 'Add a tool or machine of the catalogue' }, ...extraOptions]}
          onchange={(id) => change({ extras: [...extras, id] })}
        />
        <ul class="mt-1 flex flex-wrap gap-1.5">
          {#each extras as id (id)}
            <li>
              <button class="plain-button small" onclick={() => change({ extras: extras.filter((one) => one !== id) })}
                >{extraOptions.find((one) => one.id === id)?.label ?? labelOf(id)}
                <X size={13} /><span class="sr-only">Remove</span></button
              >
            </li>
          {/each}
        </ul>
      </div>
    {/if}
    <h2 class="mt-2 sm:col-span-2">Ways of working</h2>
    <Choice
      label="Where the wheel starts"
      value={draft.job.handover ?? 'free'}
      options={costed(draft.choices?.by_handover, (way) => way.handover)}
      onchange={(handover) => change({ handover: handover as Job['handover'] })}
    />
    <Choice
      label="Speed at the bench"
      value={draft.job.bench_speed ?? 'usual'}
      options={costed(draft.choices?.by_bench_speed, (way) => way.bench_speed)}
      onchange={(speed) => change({ bench_speed: speed as Job['bench_speed'] })}
    />
    <p class="small dim sm:col-span-2">{draft.choices?.schools ?? ''}</p>
  </div>
</Dialog>
