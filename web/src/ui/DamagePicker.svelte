<!-- What is wrong, by the word that people use for it, each with a picture of it cut through. -->
<script lang="ts">
  import DamageDrawing from './DamageDrawing.svelte';

  interface Props {
    label: string;
    value: string | null;
    damages: readonly { id: string; label: string }[];
    onchoose: (id: string) => void;
  }
  let { label, value, damages, onchoose }: Props = $props();
  const name = $props.id();
</script>

<fieldset>
  <legend class="small dim">{label}</legend>
  <div class="mt-1 grid grid-cols-[repeat(auto-fill,minmax(6.6rem,1fr))] gap-1.5">
    {#each damages as damage (damage.id)}
      <label class="panel flex cursor-pointer flex-col items-center p-1.5 text-center" class:on={damage.id === value}>
        <input
          class="sr-only"
          type="radio"
          {name}
          value={damage.id}
          checked={damage.id === value}
          onchange={() => onchoose(damage.id)}
        />
        <DamageDrawing damage={damage.id} />
        <span class="small leading-tight font-semibold">{damage.label}</span>
      </label>
    {/each}
  </div>
</fieldset>

<style>
  .on {
    border-color: var(--ink);
    background: var(--raised);
    outline: 1px solid var(--ink);
  }
  label:has(:focus-visible) {
    outline: 3px solid var(--t5);
    outline-offset: 2px;
  }
</style>
