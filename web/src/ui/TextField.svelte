<!-- A short text. Every acceptable text is reported at once; what is wrong with another is said beside it. -->
<script lang="ts">
  interface Props {
    label: string;
    value: string;
    onchange: (value: string) => void;
    complaint: (value: string) => string | null;
  }
  let { label, value, onchange, complaint }: Props = $props();
  const id = $props.id();
  let wrong = $state<string | null>(null);

  function take(text: string) {
    wrong = complaint(text);
    if (!wrong) onchange(text);
  }
</script>

<div class="min-w-0">
  <label for={id} class="small dim block">{label}</label>
  <input
    {id}
    class="field"
    class:!border-(--stop)={wrong}
    maxlength="200"
    autocomplete="off"
    {value}
    aria-invalid={wrong !== null}
    aria-describedby={wrong ? `${id}-said` : undefined}
    oninput={(event) => take(event.currentTarget.value)}
  />
  {#if wrong}<p id="{id}-said" class="small mt-0.5 text-(--stop)">{wrong}</p>{/if}
</div>
