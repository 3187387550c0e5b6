<!-- Readings at several places, in order: typed with spaces between them, or read one by one. -->
<script lang="ts">
  import TextField from '../../ui/TextField.svelte';
  import { readNumber } from '../../units/units';

  interface Props {
    label: string;
    values: number[];
    onread: () => Promise<number | null>;
    onchange: (values: number[]) => void;
  }
  let { label, values, onread, onchange }: Props = $props();
  const parts = (text: string) => text.split(/[\s;]+/).filter(Boolean);
  const wrong = (text: string) =>
    parts(text).every((part) => Number(readNumber(part)) > 0) ? null : 'Numbers with spaces between them';

  async function read() {
    const value = await onread();
    if (value !== null) onchange([...values, value]);
  }
</script>

<div class="flex items-end gap-2">
  <div class="flex-1">
    <TextField
      {label}
      value={values.join(' ')}
      complaint={wrong}
      lazy
      onchange={(text) => onchange(parts(text).map((part) => Number(readNumber(part))))}
    />
  </div>
  <button class="plain-button touch" onclick={() => void read()}>From the micrometer</button>
</div>
