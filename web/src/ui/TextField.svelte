<!-- A short text. Every acceptable text is reported at once; what is wrong with another is said beside it. -->
<script lang="ts">
  interface Props {
    label: string;
    value: string;
    onchange: (value: string) => void;
    complaint: (value: string) => string | null;
    /** What the server says is wrong with it. */
    faults?: string[];
    placeholder?: string;
    /** It was just made: the focus goes there. */
    fresh?: boolean;
    /** Reported when the person is done with it, not while they type. */
    lazy?: boolean;
  }
  let { label, value, onchange, complaint, faults = [], placeholder, lazy = false, fresh = false }: Props = $props();
  const id = $props.id();
  let complained = $state<string | null>(null);
  const wrong = $derived(complained ?? (faults.length ? faults.join(' ') : null));

  let input = $state<HTMLInputElement>();
  $effect(() => {
    if (fresh) input?.select();
  });

  /** What held when the typing began: Escape gives it back. */
  let before = '';

  function take(text: string) {
    complained = complaint(text);
    if (!complained) onchange(text);
  }
</script>

<div class="min-w-0">
  <label for={id} class="small dim block">{label}</label>
  <input
    bind:this={input}
    {id}
    class="field"
    maxlength="200"
    autocomplete="off"
    {value}
    {placeholder}
    aria-invalid={wrong !== null}
    aria-describedby={wrong ? `${id}-said` : undefined}
    onfocus={() => (before = value)}
    onkeydown={(event) => {
      if (event.key === 'Enter') before = event.currentTarget.value; // it is said: Escape takes nothing back any more
      if (event.key !== 'Escape' || event.currentTarget.value === before) return;
      event.stopPropagation();
      event.currentTarget.value = before;
      take(before);
    }}
    oninput={(event) => lazy || take(event.currentTarget.value)}
    onchange={(event) => lazy && take(event.currentTarget.value)}
  />
  {#if wrong}<p id="{id}-said" class="small mt-0.5 text-(--stop)">{wrong}</p>{/if}
</div>
