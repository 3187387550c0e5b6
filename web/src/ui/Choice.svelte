<!-- One of a list, as a native select: works with every keyboard and on every tablet. -->
<script lang="ts" generics="Id extends string">
  interface Props {
    label: string;
    value: Id;
    options: { id: Id | string; label: string; group?: string }[];
    onchange: (id: Id) => void;
    hideLabel?: boolean;
  }
  let { label, value, options, onchange, hideLabel = false }: Props = $props();
  const id = $props.id();
  const groups = $derived([...new Set(options.map((option) => option.group ?? ''))]);
</script>

<div class="min-w-0">
  <label for={id} class={hideLabel ? 'sr-only' : 'small dim block'}>{label}</label>
  <select {id} class="field" {value} onchange={(event) => onchange(event.currentTarget.value as Id)}>
    {#each groups as group (group)}
      {#if group}
        <optgroup label={group}>
          {#each options.filter((option) => option.group === group) as option (option.id)}
            <option value={option.id}>{option.label}</option>
          {/each}
        </optgroup>
      {:else}
        {#each options.filter((option) => !option.group) as option (option.id)}
          <option value={option.id}>{option.label}</option>
        {/each}
      {/if}
    {/each}
  </select>
</div>
