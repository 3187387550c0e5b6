<!-- A number with its unit. Typing reports every valid value at once; what is not one is said, and nothing is changed. -->
<script lang="ts">
  import { shown } from '../units/shown.svelte';
  import { fromShown, parseNumber, typed, type Quantity } from '../units/units';

  interface Props {
    label: string;
    value: number | null | undefined;
    onchange: (value: number) => void;
    onclear?: () => void;
    quantity?: Quantity | null;
    integer?: boolean;
    placeholder?: string;
    faults?: string[];
    hideLabel?: boolean;
    /** Report when the typing is over, for a value whose first digits would already change the screen. */
    lazy?: boolean;
  }
  let {
    label,
    value,
    onchange,
    onclear,
    quantity = null,
    integer = false,
    placeholder = '',
    faults = [],
    hideLabel = false,
    lazy = false,
  }: Props = $props();

  const id = $props.id();
  let text = $state('');
  let editing = $state(false);
  const written = $derived(value === null || value === undefined ? '' : typed(value, quantity, shown.system));
  const wrong = $derived(editing ? complaint(text) : null);
  const said = $derived(wrong ? [wrong] : faults);

  function complaint(typedText: string): string | null {
    if (typedText.trim() === '') return onclear ? null : 'Put in a number above 0';
    const number = parseNumber(typedText);
    if (number === null) return 'This is not a number';
    if (number <= 0) return 'Must be above 0';
    return integer && !Number.isInteger(number) ? 'Must be a whole number' : null;
  }

  function take(typedText: string) {
    text = typedText;
    if (complaint(text)) return;
    if (text.trim() === '') return onclear?.();
    const number = parseNumber(text) ?? 0;
    onchange(quantity ? fromShown(number, quantity, shown.system) : number);
  }

  function finish() {
    if (lazy && text !== written) take(text);
    editing = false;
  }

  function nudge(event: KeyboardEvent) {
    if (event.key === 'Enter' && lazy) return take(text);
    const way = event.key === 'ArrowUp' ? 1 : event.key === 'ArrowDown' ? -1 : 0;
    const number = parseNumber(editing ? text : written);
    if (!way || number === null) return;
    event.preventDefault();
    const step = integer || number >= 10 ? 1 : number >= 1 ? 0.1 : 0.01;
    const next = Math.max(integer ? 1 : step, Number((number + way * step * (event.shiftKey ? 10 : 1)).toPrecision(6)));
    editing = true;
    take(String(next));
  }
</script>

<div class="min-w-0">
  <label for={id} class={hideLabel ? 'sr-only' : 'small dim block'}>{label}</label>
  <div class="relative">
    <input
      {id}
      class="field num"
      class:pr-12={quantity}
      class:!border-(--stop)={said.length > 0}
      inputmode="decimal"
      autocomplete="off"
      {placeholder}
      value={editing ? text : written}
      aria-invalid={said.length > 0}
      aria-describedby={said.length ? `${id}-said` : undefined}
      onfocus={(event) => {
        text = written;
        editing = true;
        event.currentTarget.select();
      }}
      onblur={finish}
      oninput={(event) => (lazy ? (text = event.currentTarget.value) : take(event.currentTarget.value))}
      onkeydown={nudge}
    />
    {#if quantity}<span class="small dim pointer-events-none absolute top-1/2 right-2 -translate-y-1/2"
        >{shown.unit(quantity)}</span
      >{/if}
  </div>
  {#if said.length}<p id="{id}-said" class="small mt-0.5 text-(--stop)">{said.join('; ')}</p>{/if}
</div>
