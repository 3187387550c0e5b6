<!-- A few exclusive ways, side by side. -->
<script lang="ts" generics="Id extends string">
  import { SegmentedControl } from '@skeletonlabs/skeleton-svelte';

  interface Props {
    label: string;
    value: Id;
    options: readonly { id: Id; label: string }[];
    onchange: (id: Id) => void;
  }
  let { label, value, options, onchange }: Props = $props();
</script>

<SegmentedControl
  class="shrink-0"
  orientation="horizontal"
  {value}
  onValueChange={({ value: chosen }) => {
    const option = options.find((one) => one.id === chosen);
    if (option && option.id !== value) onchange(option.id);
  }}
>
  <SegmentedControl.Label class="sr-only">{label}</SegmentedControl.Label>
  <SegmentedControl.Control class="w-full flex-row! flex-wrap gap-0 bg-(--raised) p-0.5">
    {#each options as option (option.id)}
      <SegmentedControl.Item
        value={option.id}
        class="min-h-8 px-2 py-1 text-center text-[0.87rem] leading-tight font-semibold whitespace-normal transition-none! text-(--ink) data-[state=checked]:bg-(--ink) data-[state=checked]:text-(--card)"
      >
        <SegmentedControl.ItemText class="text-inherit! transition-none!">{option.label}</SegmentedControl.ItemText>
        <SegmentedControl.ItemHiddenInput />
      </SegmentedControl.Item>
    {/each}
  </SegmentedControl.Control>
</SegmentedControl>
