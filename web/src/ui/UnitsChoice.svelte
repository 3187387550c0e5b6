<!-- Metric or inch, for everything on this screen. -->
<script lang="ts">
  import { shown } from '../units/shown.svelte';
  import Either from './Either.svelte';
</script>

<Either
  label="Units"
  value={shown.system}
  options={[
    { id: 'metric', label: 'Millimetres' },
    { id: 'inch', label: 'Inches' },
  ]}
  onchange={(system) => system !== shown.system && shown.toggle()}
/>
