<!-- The time of a step that is over was not what the clock said: somebody forgot to stop it. The old time stays in the log. -->
<script lang="ts">
  import Fold from '../../ui/Fold.svelte';
  import { api, type RunPage } from '../../api/client';
  import Choice from '../../ui/Choice.svelte';
  import { notices } from '../../ui/notices.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import { understood } from '../../ui/understood';

  let { run, page, ondone }: { run: number; page: RunPage; ondone: () => void } = $props();
  let chosen = $state('');
  let minutes = $state<number | null>(null);
  const over = $derived(page.steps.filter((one) => ['gone', 'back'].includes(one.outcome)));
  const key = (one: RunPage['steps'][number]) => `${one.piece}.${one.face_id}.${one.route}.${one.step}`;
  const options = $derived(
    over.map((one) => ({ id: key(one), label: `piece ${one.piece}, ${one.face}: ${one.label}` })),
  );
  const step = $derived(over.find((one) => key(one) === chosen) ?? over[0]);

  async function put() {
    if (!step || minutes === null) return;
    const tap = {
      kind: 'corrected' as const,
      piece: step.piece,
      face: step.face_id,
      route: step.route,
      step: step.step,
    };
    try {
      await api.tap(run, {
        tap: { ...tap, seconds: minutes * 60 } as never,
        name: `right-${Date.now().toString(36)}`,
        after: page.seen,
        age_s: 0,
      });
      minutes = null;
      ondone();
    } catch (problem) {
      notices.say((problem as Error).message, 'trouble');
    }
  }
</script>

{#if over.length}
  <Fold label="Put a time right" class="small print:hidden">
    <form
      class="mt-2 grid items-end gap-2 sm:grid-cols-[2fr_8rem_auto]"
      aria-label="Put a time right"
      onsubmit={(event) => {
        event.preventDefault();
        if (understood(event.currentTarget)) void put();
      }}
    >
      <Choice label="Step" value={step ? key(step) : ''} {options} onchange={(id) => (chosen = id)} />
      <NumberField
        label="Minutes that it took"
        value={minutes}
        onchange={(value) => (minutes = value)}
        onclear={() => (minutes = null)}
      />
      <button class="plain-button" disabled={minutes === null}>Put it right</button>
    </form>
  </Fold>
{/if}
