<!-- The damage is deeper than may come off: what can be reached all the same. -->
<script lang="ts">
  import type { FacePlan, Want } from '../../api/client';
  import { shown } from '../../units/shown.svelte';
  import { duration } from '../../units/units';

  interface Props {
    instead: NonNullable<FacePlan['fallback']>;
    onwant: (want: Want) => void;
  }
  let { instead, onwant }: Props = $props();
</script>

<dl class="grid max-w-lg gap-2 text-left" aria-label="What can be reached">
  {#if instead.minutes !== null}
    <div>
      <dt class="font-semibold">The wanted finish, with old marks in it</dt>
      <dd>
        Marks to {shown.say(instead.cleared_um, 'depth')} come out in {duration(instead.minutes)} ({instead.tools.join(
          ', ',
        )}). The deepest stays {shown.say(instead.stays_um, 'depth')} deep and will be seen.{instead.dear
          ? ' That is hardly worth it.'
          : ''}
      </dd>
    </div>
  {/if}
  {#if instead.simpler.length}
    <div>
      <dt class="font-semibold">A simpler finish, with every mark out</dt>
      <dd class="mt-1 flex flex-wrap gap-1.5">
        {#each instead.simpler as one (one.finish)}
          <button class="plain-button small" onclick={() => onwant({ finish: one.finish })}
            >{one.label}, {duration(one.minutes)}</button
          >
        {/each}
      </dd>
    </div>
  {/if}
  <div>
    <dt class="font-semibold">Blended</dt>
    <dd>
      A dish of {shown.say(instead.dish_radius_mm, 'length')} radius around a single mark uses the whole limit and leaves
      {shown.say(instead.dish_stays_um, 'depth')} in its middle, softened.
    </dd>
  </div>
</dl>
