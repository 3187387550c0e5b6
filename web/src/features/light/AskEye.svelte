<!-- The eye on any face that is not at the bench: the grade before is told, nothing is kept. -->
<script lang="ts">
  import { choices } from '../../api/catalogue.svelte';
  import { eyeAnywhere } from '../../api/eye';
  import EyePanel from '../../ui/eye/EyePanel.svelte';

  let before = $state('P240');
  const ask = eyeAnywhere(() => before);
</script>

<section class="panel grid max-w-3xl gap-3 p-4" aria-label="Ask the eye">
  <label class="flex flex-wrap items-center gap-2"
    ><span>Worked before with</span>
    <select class="field-choice !w-32" bind:value={before}>
      {#each choices.papers as one (one.id)}<option value={one.id}>{one.label}</option>{/each}
    </select></label
  >
  <EyePanel asks={ask} />
</section>
