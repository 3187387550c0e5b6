<!-- One of a list that the shop can add to: what is not listed is described. -->
<script lang="ts">
  import Choice from '../ui/Choice.svelte';
  import Sheet from '../ui/Sheet.svelte';

  interface Props {
    label: string;
    kind: 'material' | 'finish';
    value: string;
    options: { id: string; label: string; group?: string }[];
    onchange: (id: string) => void;
  }
  let { label, kind, value, options, onchange }: Props = $props();
  const NEW = 'not-listed';
  let describing = $state(false);
  /** What the list shows again where nothing was described in the end. */
  let turns = $state(0);
</script>

{#key turns}
  <Choice
    {label}
    {value}
    options={[...options, { id: NEW, label: 'Not listed? Describe it …' }]}
    onchange={(id) => {
      if (id !== NEW) return onchange(id);
      describing = true;
      turns++;
    }}
  />
{/key}
<Sheet
  load={() => import('./OwnSheet.svelte')}
  props={{ kinds: [kind], onsaved: (entry: { id?: string }) => onchange(entry.id ?? value) }}
  bind:open={describing}
/>
