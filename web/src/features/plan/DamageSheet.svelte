<!-- What is wrong with the face, by the word for it: it becomes what the model knows, with a first guess of its depth. -->
<script lang="ts">
  import { choices } from '../../api/catalogue.svelte';
  import type { Catalogue } from '../../api/client';
  import DamagePicker from '../../ui/DamagePicker.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import { shown } from '../../units/shown.svelte';

  type Damage = Catalogue['damages'][number];
  let { open = $bindable(), onchoose }: { open: boolean; onchoose: (damage: Damage) => void } = $props();
  let chosen = $state('');
  const damage = $derived(choices.all?.damages.find((one) => one.id === chosen));

  function use() {
    if (damage) onchoose(damage);
    open = false;
  }
</script>

<Dialog bind:open title="What is wrong with it?" wide>
  <DamagePicker
    label="Drawn cut through, not to scale"
    value={chosen}
    damages={choices.all?.damages ?? []}
    onchoose={(id) => (chosen = id)}
  />
  {#if damage}
    <p class="mt-3">{damage.says}</p>
    <p class="small dim">
      A first guess: {shown.say(damage.likely_um, 'depth')} deep, {shown.say(damage.worst_um, 'depth')} at worst. Put in what
      you see and feel.
    </p>
  {/if}
  <button class="main-button mt-3 touch" disabled={!damage} onclick={use}>Use this</button>
</Dialog>
