<!-- A number with its unit. Typing reports every valid value at once; while what stands there is none, the value from before holds. -->
<script lang="ts">
  import { shown } from '../units/shown.svelte';
  import { fromShown, readNumber, typed, type Quantity } from '../units/units';

  interface Props {
    label: string;
    value: number | null | undefined;
    onchange: (value: number) => void;
    onclear?: () => void;
    quantity?: Quantity | null;
    integer?: boolean;
    /** It may be 0 or below, as the clearance of a press fit. */
    signed?: boolean;
    placeholder?: string;
    /** What the server says is wrong with it, in words. */
    faults?: string[];
    hideLabel?: boolean;
    /** The unit stands beside it already, as at the head of a table. */
    hideUnit?: boolean;
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
    signed = false,
    placeholder = '',
    faults = [],
    hideLabel = false,
    hideUnit = false,
    lazy = false,
  }: Props = $props();

  const id = $props.id();
  let text = $state('');
  /** The text is the person's own: being typed, or left as something that is no number. */
  let editing = $state(false);
  let focused = false;
  /** What held when the typing began: half of a number must not be taken for the whole. */
  let before: number | null | undefined;
  const written = $derived(value === null || value === undefined ? '' : typed(value, quantity, shown.system));
  const wrong = $derived(editing ? complaint(text) : null);
  const said = $derived(wrong ? [wrong] : faults);

  function complaint(typedText: string): string | null {
    if (typedText.trim() === '') return onclear ? null : signed ? 'Put in a number' : 'Put in a number above 0';
    const number = readNumber(typedText);
    if (typeof number !== 'number') return number.wrong;
    if (number <= 0 && !signed) return 'Must be above 0';
    return integer && !Number.isInteger(number) ? 'Must be a whole number' : null;
  }

  function take(typedText: string) {
    text = typedText;
    if (complaint(text)) return restore();
    if (text.trim() === '') return onclear?.();
    const number = readNumber(text);
    if (typeof number === 'number') onchange(quantity ? fromShown(number, quantity, shown.system) : number);
  }

  /** The value from before the typing, where the typing has changed it. */
  function restore() {
    if (lazy || before === value) return;
    if (typeof before === 'number') onchange(before);
    else onclear?.();
  }

  function begin(event: FocusEvent & { currentTarget: HTMLInputElement }) {
    focused = true;
    before = value;
    if (!editing) text = written;
    editing = true;
    event.currentTarget.select();
  }

  function finish() {
    focused = false;
    if (lazy && text !== written) take(text);
    // What is no number stays to be seen, with what is wrong with it; an empty field has nothing to show.
    editing = text.trim() !== '' && complaint(text) !== null;
  }

  // A value that comes from elsewhere (undo, another face) takes the place of what was typed.
  $effect(() => {
    void value;
    if (!focused) editing = false;
  });

  // What is wrong must be seen where it is typed, also at the edge of what scrolls.
  let words = $state<HTMLElement>();
  $effect(() => {
    if (wrong && focused) words?.scrollIntoView({ block: 'nearest' });
  });

  function nudge(event: KeyboardEvent) {
    if (event.key === 'Enter' && lazy) return take(text);
    if (event.key === 'Escape' && editing && text !== written) {
      event.stopPropagation();
      restore();
      text = before === null || before === undefined ? '' : typed(before, quantity, shown.system);
      return;
    }
    const way = event.key === 'ArrowUp' ? 1 : event.key === 'ArrowDown' ? -1 : 0;
    const number = readNumber(editing ? text : written);
    if (!way || typeof number !== 'number') return;
    event.preventDefault();
    const gauged = shown.system === 'inch' ? 0.0001 : 0.001;
    const step = quantity === 'size' ? gauged : integer || signed || number >= 10 ? 1 : number >= 1 ? 0.1 : 0.01;
    const least = signed ? -Infinity : integer ? 1 : step;
    const next = Math.max(least, Number((number + way * step * (event.shiftKey ? 10 : 1)).toPrecision(7)));
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
      class:pr-12={quantity && !hideUnit}
      inputmode={signed ? 'text' : 'decimal'}
      autocomplete="off"
      {placeholder}
      value={editing ? text : written}
      aria-invalid={said.length > 0}
      aria-describedby={said.length ? `${id}-said` : undefined}
      onfocus={begin}
      onblur={finish}
      oninput={(event) => (lazy ? (text = event.currentTarget.value) : take(event.currentTarget.value))}
      onkeydown={nudge}
    />
    {#if quantity && !hideUnit}<span class="small dim pointer-events-none absolute top-1/2 right-2 -translate-y-1/2"
        >{shown.unit(quantity)}</span
      >{/if}
  </div>
  {#if said.length}<p id="{id}-said" bind:this={words} class="small mt-0.5 text-(--stop)">{said.join('; ')}</p>{/if}
</div>
