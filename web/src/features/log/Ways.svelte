<!-- The house ways: routes that came out well here. They are made on the page of a run. -->
<script lang="ts">
  import { choices } from '../../api/catalogue.svelte';
  import { api, type HouseWay } from '../../api/client';
  import { p } from '../../app/router';
  import { Answer } from '../../ui/answer.svelte';
  import { notices } from '../../ui/notices.svelte';
  import { shown } from '../../units/shown.svelte';
  import { duration } from '../../units/units';

  const answer = new Answer<HouseWay[]>();
  answer.ask(api.houseWays());
  const label = (tool: string) => choices.all?.tools.find((one) => one.id === tool)?.label ?? tool;

  async function forget(way: HouseWay) {
    try {
      await api.forgetHouseWay(way.id);
      answer.ask(api.houseWays(), true);
    } catch (problem) {
      notices.say((problem as Error).message, 'trouble');
    }
  }
</script>

{#if answer.trouble}<p class="text-(--stop)" role="alert">{answer.trouble}</p>{/if}
{#if answer.value?.length === 0}
  <div class="panel p-10 text-center">
    <h2 class="text-xl">No house ways yet</h2>
    <p class="mx-auto mt-2 max-w-md">
      Open a run that was finished as wanted, and make the way of one of its faces the house way for that kind of face.
    </p>
  </div>
{/if}
<ul class="grid gap-2.5">
  {#each answer.value ?? [] as way (way.id)}
    <li class="panel flex items-start gap-4 p-4">
      <div class="flex-1">
        <h2 class="!text-base">{way.name}</h2>
        <p class="small dim">
          {choices.finish(way.file.finish)?.label ?? way.file.finish} · {choices.familyLabel(way.file.family)} · {way
            .file.reach} · from {way.file.kind === 'after' ? 'the marks of a grit' : way.file.kind}
          {way.file.kind === 'after' ? '' : `up to ${shown.say(way.file.depth_um, 'depth')}`}
        </p>
        <p>{way.file.route.map(label).join(', then ')}</p>
        <p class="num small">
          It took {duration(way.file.minutes)} on {shown.say(way.file.area_cm2, 'area')}, {shown.say(
            way.file.metal_um,
            'depth',
          )} planned to come off.
          {#if way.run_id}<a class="underline" href={p('/log/:id', { params: { id: String(way.run_id) } })}>The run</a
            >{/if}
        </p>
      </div>
      <button class="plain-button small" onclick={() => forget(way)}>Forget it</button>
    </li>
  {/each}
</ul>
