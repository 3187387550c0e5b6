<!-- A few exclusive ways, side by side: radio buttons that look like one switch. -->
<script lang="ts" generics="Id extends string">
  interface Props {
    label: string;
    value: Id;
    options: readonly { id: Id; label: string }[];
    onchange: (id: Id) => void;
  }
  let { label, value, options, onchange }: Props = $props();
  const name = $props.id();
</script>

<fieldset class="flex shrink-0 overflow-hidden rounded-lg border border-(--line)" role="radiogroup" aria-label={label}>
  {#each options as option (option.id)}
    <label
      class="flex-1 cursor-pointer px-2 py-1 text-center text-[0.87rem] font-semibold has-focus-visible:outline-3 has-focus-visible:outline-(--t5)"
      class:bg-(--bar)={option.id === value}
      class:text-(--on-bar)={option.id === value}
      class:bg-(--raised)={option.id !== value}
    >
      <input
        class="sr-only"
        type="radio"
        {name}
        value={option.id}
        checked={option.id === value}
        onchange={() => onchange(option.id)}
      />{option.label}
    </label>
  {/each}
</fieldset>
