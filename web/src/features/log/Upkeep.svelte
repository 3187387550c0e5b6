<!-- Upkeep: what is due now, then what comes next. -->
<script lang="ts">
  import { api, type Due } from '../../api/client';
  import { Answer } from '../../ui/answer.svelte';
  import { notices } from '../../ui/notices.svelte';
  import { figures } from '../../units/units';

  const answer = new Answer<Due[]>();
  answer.ask(api.upkeep());
  const day = (at: string) => new Date(at).toLocaleDateString(undefined, { dateStyle: 'medium' });

  async function done(one: Due) {
    try {
      answer.value = await api.careDone(one.thing, one.care);
      notices.say(`${one.thing_label}: ${one.label.toLowerCase()}, done`);
    } catch (problem) {
      notices.say((problem as Error).message, 'trouble');
    }
  }

  function since(one: Due): string {
    if (one.last) return `last done ${day(one.last)}`;
    return one.waxed_on ? `waxed ${day(one.waxed_on)}` : 'not done yet';
  }

  function when(one: Due): string {
    const said = [];
    if (one.after_h !== null) said.push(`${figures(one.worked_h)} of ${figures(one.after_h)} h of work`);
    if (one.on_day) said.push(`by ${day(one.on_day)}`);
    return said.join(', ') || 'not yet';
  }
</script>

{#if answer.trouble}<p class="text-(--stop)" role="alert">{answer.trouble}</p>{/if}
<ul class="grid gap-2">
  {#each answer.value ?? [] as one (one.thing + one.care)}
    <li class="panel flex items-center gap-4 px-4 py-2.5" class:!border-(--stop)={one.now}>
      <div class="flex-1">
        <b class="font-semibold">{one.thing_label}: {one.label.toLowerCase()}</b>
        {#if one.now}<b class="text-(--stop)">due now</b>{/if}
        <span class="small dim block">{one.text}</span>
      </div>
      <span class="num small text-right">{when(one)}<span class="dim block">{since(one)}</span></span>
      <button class="plain-button small" onclick={() => done(one)} aria-label="Done: {one.thing_label}, {one.label}"
        >Done</button
      >
    </li>
  {/each}
</ul>
