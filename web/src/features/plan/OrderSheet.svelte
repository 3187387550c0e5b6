<!-- Who wants it and until when, how far it is, and what a person does besides the computed work. -->
<script lang="ts">
  import { choices } from '../../api/catalogue.svelte';
  import { api, type Job, type OwnOperation } from '../../api/client';
  import { Answer } from '../../ui/answer.svelte';
  import Choice from '../../ui/Choice.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import { notices } from '../../ui/notices.svelte';
  import TextField from '../../ui/TextField.svelte';
  import type { JobDraft } from './draft.svelte';

  let { draft, open = $bindable() }: { draft: JobDraft; open: boolean } = $props();
  const WHEN: { id: OwnOperation['when']; label: string }[] = [
    { id: 'before', label: 'Before the first step' },
    { id: 'between', label: 'Between the steps' },
    { id: 'after', label: 'After the last step' },
  ];
  const own = $derived(draft.job.own_operations ?? []);
  const templates = new Answer<Record<string, OwnOperation[]>>();
  let name = $state('');
  $effect(() => {
    if (open && !templates.value) templates.ask(api.templates());
  });

  function change(change: Partial<Job>) {
    Object.assign(draft.job, change);
    draft.changed();
  }

  const changeOwn = (at: number, next: Partial<OwnOperation>) =>
    change({ own_operations: own.map((one, place) => (place === at ? { ...one, ...next } : one)) });

  function add() {
    const fresh: OwnOperation = {
      label: 'Take it apart',
      when: 'before',
      minutes: 5,
      lot_minutes: 0,
      waiting_minutes: 0,
      text: '',
      caution: '',
      check: '',
    };
    added = own.length;
    change({ own_operations: [...own, fresh] });
  }
  /** The one that was just added has the focus in its name. */
  let added = $state(-1);

  async function keep() {
    try {
      await api.keepTemplate(name.trim(), own);
      templates.ask(api.templates(), true);
      notices.say(`Saved as “${name.trim()}” for the next such part.`);
      name = '';
    } catch (problem) {
      notices.say((problem as Error).message, 'trouble');
    }
  }
</script>

<Dialog bind:open title="The order" wide>
  <div class="grid gap-3 sm:grid-cols-2">
    <TextField
      label="Customer"
      value={draft.job.customer ?? ''}
      complaint={() => null}
      onchange={(customer) => change({ customer })}
    />
    <label>
      <span class="small dim block">Promised for</span>
      <input
        class="field num"
        type="datetime-local"
        value={draft.job.due?.slice(0, 16) ?? ''}
        onchange={(event) => change({ due: event.currentTarget.value || undefined })}
      />
    </label>
    <Choice
      label="Status"
      value={draft.state}
      options={choices.all?.states ?? []}
      onchange={(state) => void draft.setState(state)}
    />
    <NumberField
      label="Coats of its protection"
      integer
      value={draft.job.coats ?? 1}
      onchange={(coats) => change({ coats })}
    />
    <label class="sm:col-span-2">
      <span class="small dim block">Note</span>
      <textarea
        class="field"
        rows="2"
        maxlength="2000"
        value={draft.job.note ?? ''}
        oninput={(event) => change({ note: event.currentTarget.value })}></textarea>
    </label>
  </div>
  <h2 class="mt-4">Own operations</h2>
  <p class="small dim mb-2">
    Beside the computed ones: taking apart, putting back, a trial. They count in the plan, the day, the price, the card
    and at the bench.
  </p>
  <ul class="grid gap-3">
    {#each own as one, at (at)}
      <li class="grid gap-2 rounded-lg border border-(--line) p-3 sm:grid-cols-4">
        <div class="sm:col-span-2">
          <TextField
            label="What"
            fresh={at === added}
            value={one.label}
            complaint={(text) => (text.trim() ? null : 'Say what is done')}
            onchange={(label) => changeOwn(at, { label })}
          />
        </div>
        <Choice label="When" value={one.when} options={WHEN} onchange={(when) => changeOwn(at, { when })} />
        <div class="grid grid-cols-3 gap-2">
          <NumberField
            label="Min each"
            value={one.minutes}
            onchange={(minutes) => changeOwn(at, { minutes })}
            onclear={() => changeOwn(at, { minutes: 0 })}
          />
          <NumberField
            label="Min per lot"
            value={one.lot_minutes}
            onchange={(lot_minutes) => changeOwn(at, { lot_minutes })}
            onclear={() => changeOwn(at, { lot_minutes: 0 })}
          />
          <NumberField
            label="Waiting"
            value={one.waiting_minutes}
            onchange={(waiting_minutes) => changeOwn(at, { waiting_minutes })}
            onclear={() => changeOwn(at, { waiting_minutes: 0 })}
          />
        </div>
        <div class="sm:col-span-2">
          <TextField
            label="What must not be forgotten"
            value={one.text ?? ''}
            complaint={() => null}
            onchange={(text) => changeOwn(at, { text })}
          />
        </div>
        <TextField
          label="Caution"
          value={one.caution ?? ''}
          complaint={() => null}
          onchange={(caution) => changeOwn(at, { caution })}
        />
        <TextField
          label="Check, to pass or fail"
          value={one.check ?? ''}
          complaint={() => null}
          onchange={(check) => changeOwn(at, { check })}
        />
        <button
          class="small justify-self-start underline"
          onclick={() => change({ own_operations: own.filter((_, place) => place !== at) })}>Take it out</button
        >
      </li>
    {/each}
  </ul>
  <div class="mt-3 flex flex-wrap items-end gap-3">
    <button class="plain-button" onclick={add}>Add an operation</button>
    {#if Object.keys(templates.value ?? {}).length}
      <div class="w-56">
        <Choice
          label="Saved for such parts"
          value=""
          options={[
            { id: '', label: 'Choose' },
            ...Object.keys(templates.value ?? {}).map((id) => ({ id, label: id })),
          ]}
          onchange={(id) => change({ own_operations: [...own, ...(templates.value?.[id] ?? [])] })}
        />
      </div>
    {/if}
    {#if own.length}
      <div class="w-48">
        <TextField
          label="Save these for the next, as"
          value={name}
          complaint={() => null}
          onchange={(text) => (name = text)}
        />
      </div>
      <button class="plain-button" disabled={!name.trim()} onclick={() => void keep()}>Keep</button>
    {/if}
  </div>
</Dialog>
