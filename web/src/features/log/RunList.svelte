<!-- The runs, searched: by words, material, finish, tool, day. -->
<script lang="ts" module>
  import Scrolling from '../../ui/Scrolling.svelte';
  import type { Sought } from '../../api/client';

  const NOTHING = { text: '', material: '', finish: '', tool: '', since: '', until: '', offset: 0 };
  /** What is looked for outlives the page: back from a run, the list is as it was. */
  const search = $state({ ...NOTHING, status: '' as NonNullable<Sought['status']> | '' });
</script>

<script lang="ts">
  import Download from '@lucide/svelte/icons/download';
  import { choices } from '../../api/catalogue.svelte';
  import { api, type Log, type LogLine } from '../../api/client';
  import { p } from '../../app/router';
  import { Answer } from '../../ui/answer.svelte';
  import CopyTable from '../../ui/CopyTable.svelte';
  import Choice from '../../ui/Choice.svelte';
  import { shown } from '../../units/shown.svelte';
  import { duration, figures } from '../../units/units';

  const ANY = [{ id: '', label: 'Any' }];
  const STATES = [
    { id: '', label: 'Any' },
    { id: 'open', label: 'At the bench' },
    { id: 'finished', label: 'Finished' },
    { id: 'stopped', label: 'Stopped' },
  ];
  const PAGE = 50;
  const answer = new Answer<Log>();
  const log = $derived(answer.value);

  const sought = $derived.by((): Sought => {
    const { text, material, finish, tool, status, since, until } = search;
    const all = { text, material, finish, tool, status, since, until };
    return Object.fromEntries(Object.entries(all).filter(([, value]) => value !== '')) as Sought;
  });
  const query = $derived(new URLSearchParams(sought as Record<string, string>).toString());
  $effect(() => answer.ask(api.log(sought, search.offset), true));

  function narrow(change: () => void) {
    change();
    search.offset = 0;
  }

  const day = (at: string) => new Date(at).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' });
  const worn = (line: LogLine, which: 'planned' | 'worn') =>
    line.figures.worn.reduce((sum, one) => sum + one[which], 0);

  /** Discs, bars and tubs have no common count: only the whole against the plan says something. */
  function againstPlan(was: number, planned: number): string {
    if (planned <= 0) return '–';
    const ratio = was / planned;
    if (ratio > 0.85 && ratio < 1.15) return 'as planned';
    if (ratio >= 1.8) return `${figures(ratio, 1)} times`;
    return ratio < 1 ? `${figures(100 * (1 - ratio), 1)} % less` : `${figures(100 * (ratio - 1), 1)} % more`;
  }

  function cameOut(line: LogLine): string {
    if (line.status === 'open') return 'at the bench';
    if (line.status === 'stopped') return 'stopped';
    return line.well ? 'as wanted' : 'not as wanted';
  }
</script>

<form
  class="mb-3 grid grid-cols-2 items-end gap-2 md:grid-cols-4 lg:grid-cols-[2fr_1.2fr_1.2fr_1.4fr_1fr_1fr_1fr]"
  role="search"
  aria-label="Search the log"
  onsubmit={(event) => event.preventDefault()}
>
  <label
    ><span class="small dim block">Words</span><input
      class="field"
      placeholder="title, note, trouble"
      maxlength="200"
      value={search.text}
      oninput={(event) => narrow(() => (search.text = event.currentTarget.value))}
    /></label
  >
  <Choice
    label="Material"
    value={search.material}
    options={[...ANY, ...(choices.all?.materials ?? [])]}
    onchange={(id) => narrow(() => (search.material = id))}
  />
  <Choice
    label="Finish"
    value={search.finish}
    options={[...ANY, ...(choices.all?.finishes ?? []).map((one) => ({ id: one.label, label: one.label }))]}
    onchange={(id) => narrow(() => (search.finish = id))}
  />
  <Choice
    label="Tool"
    value={search.tool}
    options={[...ANY, ...(log?.tools ?? [])]}
    onchange={(id) => narrow(() => (search.tool = id))}
  />
  <Choice
    label="State"
    value={search.status}
    options={STATES}
    onchange={(id: typeof search.status) => narrow(() => (search.status = id))}
  />
  <label
    ><span class="small dim block">From</span><input
      class="field"
      type="date"
      value={search.since}
      onchange={(event) => narrow(() => (search.since = event.currentTarget.value))}
    /></label
  >
  <label
    ><span class="small dim block">To</span><input
      class="field"
      type="date"
      value={search.until}
      onchange={(event) => narrow(() => (search.until = event.currentTarget.value))}
    /></label
  >
</form>
{#if answer.trouble}<p class="text-(--stop)" role="alert">{answer.trouble}</p>{/if}
{#if log && log.count === 0}
  <div class="panel p-10 text-center">
    <h2 class="text-xl">{query ? 'No run is like that' : 'Nothing in the log yet'}</h2>
    <p class="mx-auto mt-2 max-w-md">
      {query
        ? 'Take a word or a choice away.'
        : 'Take a job to the bench (B on its page). Every tap is saved and shown here.'}
    </p>
  </div>
{:else if log}
  <Scrolling label="Runs, to scroll">
    <table
      class="lines [--cell:0.5rem_0.9rem] panel w-full border-separate border-spacing-0 overflow-hidden"
      aria-label="Runs"
    >
      <thead class="small dim text-left">
        <tr>
          <th>Part</th><th>Begun</th><th>Material, finish</th><th class="!text-right">Hands-on</th>
          <th class="!text-right">Metal</th><th class="!text-right">Abrasives</th><th>Came out</th>
        </tr>
      </thead>
      <tbody>
        {#each log.lines as line (line.id)}
          <tr>
            <td
              ><a class="font-semibold hover:underline" href={p('/log/:id', { params: { id: String(line.id) } })}
                >{line.title}</a
              ><span class="small dim block">{line.pieces} {line.pieces === 1 ? 'piece' : 'pieces'}</span></td
            >
            <td class="small num">{day(line.began_at)}</td>
            <td class="small">{line.material}<span class="dim block">{line.finishes}</span></td>
            <td class="num text-right"
              >{#if line.figures.hands_on_minutes && line.figures.spent_minutes !== null}<b
                  >{duration(line.figures.spent_minutes)}</b
                ><span class="small dim block">of {duration(line.figures.hands_on_minutes)}</span>{:else}<b
                  >{duration(line.figures.minutes)}</b
                ><span class="small dim block">cutting, of {duration(line.figures.planned_minutes)}</span>{/if}</td
            >
            <td class="num text-right"
              ><b>{line.figures.metal_um === null ? '–' : shown.say(line.figures.metal_um, 'depth')}</b><span
                class="small dim block">of {shown.say(line.figures.planned_metal_um, 'depth')}</span
              ></td
            >
            <td class="num text-right">{againstPlan(worn(line, 'worn'), worn(line, 'planned'))}</td>
            <td
              >{cameOut(line)}{#if line.figures.backs}<span class="small dim block"
                  >went back {line.figures.backs}
                  {line.figures.backs === 1 ? 'time' : 'times'}</span
                >{/if}</td
            >
          </tr>
        {/each}
      </tbody>
    </table></Scrolling
  >
  <CopyTable />
  <div class="mt-3 flex flex-wrap items-center gap-3">
    <span class="small dim flex-1"
      >{log.count}
      {log.count === 1 ? 'run' : 'runs'}{log.count > PAGE
        ? `, ${search.offset + 1} to ${Math.min(search.offset + PAGE, log.count)} here`
        : ''}</span
    >
    {#if log.count > PAGE}
      <button class="plain-button small" disabled={search.offset === 0} onclick={() => (search.offset -= PAGE)}
        >Newer</button
      >
      <button
        class="plain-button small"
        disabled={search.offset + PAGE >= log.count}
        onclick={() => (search.offset += PAGE)}>Older</button
      >
    {/if}
    <a class="plain-button small" href="/api/log.csv?{query}" download><Download size={15} />CSV</a>
    <a class="plain-button small" href="/api/log.json?{query}" download><Download size={15} />JSON</a>
  </div>
{:else}
  <p class="dim p-4">Reading the log …</p>
{/if}
