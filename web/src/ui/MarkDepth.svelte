<!-- How deep a mark is, said in one of three ways: a fingernail catches, it looks like a grade, or by depth. -->
<script lang="ts">
  import Choice from './Choice.svelte';
  import Either from './Either.svelte';
  import NumberField from './NumberField.svelte';

  interface Mark {
    depth_um?: number;
    like?: string;
    fingernail?: boolean;
  }
  interface Props {
    mark: Mark;
    papers: { id: string; label: string }[];
    onchange: (mark: Mark) => void;
  }
  let { mark, papers, onchange }: Props = $props();
  const way = $derived(mark.fingernail ? 'nail' : mark.like !== undefined ? 'like' : 'depth');
  const FIRST: Record<string, Mark> = { nail: { fingernail: true }, like: { like: 'P400' }, depth: { depth_um: 5 } };
</script>

<Either
  label="How deep is it"
  value={way}
  options={[
    { id: 'depth', label: 'By depth' },
    { id: 'like', label: 'Looks like a grit' },
    { id: 'nail', label: 'A fingernail catches' },
  ]}
  onchange={(next) => onchange(FIRST[next] ?? {})}
/>
{#if way === 'depth'}
  <NumberField
    label="Depth of the mark"
    value={mark.depth_um}
    quantity="depth"
    onchange={(depth_um) => onchange({ depth_um })}
  />
{:else if way === 'like'}
  <Choice
    label="It looks as left by"
    value={mark.like ?? ''}
    options={papers}
    onchange={(like) => onchange({ like })}
  />
{/if}
