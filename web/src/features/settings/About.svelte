<!-- Which version this is, what changed, and what everything rests on. -->
<script lang="ts">
  import Fold from '../../ui/Fold.svelte';
  import changelog from '../../../../CHANGELOG.md?raw';
  import { api } from '../../api/client';
  import { p } from '../../app/router';
  import { Answer } from '../../ui/answer.svelte';

  const health = new Answer<{ version: string }>();
  health.ask(api.health());
  /** The newest part of the changelog, a line each. */
  const newest = changelog.split(/^## /m)[1] ?? '';
  const title = newest.split('\n')[0] ?? '';
  const lines = newest
    .split(/^- /m)
    .slice(1)
    .map((one) => one.replace(/\s+/g, ' ').trim());
</script>

<section class="panel grid content-start gap-3 p-4" aria-label="About">
  <h2 class="!text-lg">About</h2>
  <p>
    Kelbrast {health.value?.version ?? ''}, from a scratched part to the finish it needs. A plan is a calculation: the
    maker’s limits, local rules and what you were taught come before it.
  </p>
  <p><a class="underline" href={p('/manual')}>The manual</a>, to read here or to print.</p>
  <Fold label="What changed: {title}">
    <ul class="small mt-2 grid max-h-72 list-disc gap-1.5 overflow-auto pl-5">
      {#each lines as line (line)}<li>{line.replaceAll('`', '')}</li>{/each}
    </ul>
  </Fold>
</section>
