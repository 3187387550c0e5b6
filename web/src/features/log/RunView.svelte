<!-- A run, as it can be read, exported and printed: for the next colleague everything, for the customer what matters to them. -->
<script lang="ts">
  import Download from '@lucide/svelte/icons/download';
  import Printer from '@lucide/svelte/icons/printer';
  import { linesOf } from '../../api/account';
  import { api, type KeptQuote, type Photos, type RunPage } from '../../api/client';
  import { p, route } from '../../app/router';
  import { Answer } from '../../ui/answer.svelte';
  import Either from '../../ui/Either.svelte';
  import SideBySide from '../../ui/SideBySide.svelte';
  import { shown } from '../../units/shown.svelte';
  import { duration, usedUp } from '../../units/units';
  import FacesWorked from './FacesWorked.svelte';
  import MakeWay from './MakeWay.svelte';
  import StepTimes from './StepTimes.svelte';
  import TimeRight from './TimeRight.svelte';

  const id = $derived(Number(route.params.id));
  const answer = new Answer<RunPage>();
  const pictures = new Answer<Photos>();
  let reader = $state<'colleague' | 'customer'>('colleague');
  const page = $derived(answer.value);
  const line = $derived(page?.line);
  const when = (at: string) => new Date(at).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'medium' });
  const day = (at: string) => new Date(at).toLocaleDateString(undefined, { dateStyle: 'long' });
  function days(began: string, ended: string | null): string {
    const [first, last] = [day(began), ended ? day(ended) : null];
    return last && last !== first ? `${first} to ${last}` : first;
  }

  /** The quote that was told before this run, newest first. */
  const quotes = new Answer<KeptQuote[]>();
  const quoted = $derived(
    line ? quotes.value?.find((one) => Date.parse(one.at) <= Date.parse(line?.began_at ?? '')) : undefined,
  );
  $effect(() => {
    if (line?.job_id) quotes.ask(api.quotes(line.job_id));
  });

  $effect(() => {
    answer.ask(api.runPage(id));
    pictures.ask(api.photos(id));
  });
  const OVER: Record<string, string> = { open: 'At the bench', stopped: 'Stopped before the end' };
</script>

<svelte:head><title>{line?.title ?? 'Run'}, log – Kelbrast</title></svelte:head>

<div class="mx-auto w-full max-w-4xl p-5">
  {#if answer.trouble}<p class="text-(--stop)" role="alert">
      {answer.trouble}. <a class="underline" href={p('/log')}>To the log</a>
    </p>{/if}
  {#if page && line}
    <nav class="no-print mb-4 flex flex-wrap items-center gap-2">
      <a class="plain-button small" href={p('/log')}>Log</a>
      <a
        class={line.status === 'open' ? 'main-button small' : 'plain-button small'}
        href={p('/bench/:id', { params: { id: String(id) } })}
        >{line.status === 'open' ? 'Go to the bench' : 'Add to it'}</a
      >
      {#if line.job_id}<a class="plain-button small" href={p('/jobs/:id', { params: { id: String(line.job_id) } })}
          >The job</a
        >{/if}
      <div class="w-72">
        <Either
          label="For whom"
          value={reader}
          options={[
            { id: 'colleague', label: 'For a colleague' },
            { id: 'customer', label: 'For the customer' },
          ]}
          onchange={(next) => (reader = next)}
        />
      </div>
      <span class="flex-1"></span>
      <a class="plain-button small" href="/api/runs/{id}/file.csv" download><Download size={15} />CSV</a>
      <a class="plain-button small" href="/api/runs/{id}/file.json" download><Download size={15} />JSON</a>
      <button class="plain-button small" onclick={() => window.print()}><Printer size={15} />Print</button>
    </nav>
    <article class="grid gap-5">
      <header>
        <h1>{line.title}</h1>
        <p>{line.material}, {line.pieces} {line.pieces === 1 ? 'piece' : 'pieces'}. {line.finishes}.</p>
        <p class="dim">
          {days(line.began_at, line.ended_at)}.
          {OVER[line.status] ?? (line.well ? 'Finished as wanted' : 'Finished, not as wanted')}.
        </p>
      </header>
      {#if reader === 'colleague'}
        <dl class="grid grid-cols-2 gap-3 md:grid-cols-4" aria-label="Planned and as it was">
          {#if line.figures.account && line.figures.spent}
            <div>
              <dt>Hands-on</dt>
              <dd>{duration(line.figures.spent_minutes ?? 0)}</dd>
              <dd class="of">planned {duration(line.figures.hands_on_minutes ?? 0)}</dd>
            </div>
          {/if}
          <div>
            <dt>Cutting</dt>
            <dd>{duration(line.figures.minutes)}</dd>
            <dd class="of">planned {duration(line.figures.planned_minutes)}</dd>
          </div>
          <div>
            <dt>Metal</dt>
            <dd>{line.figures.metal_um === null ? 'not measured' : shown.say(line.figures.metal_um, 'depth')}</dd>
            <dd class="of">planned {shown.say(line.figures.planned_metal_um, 'depth')} at most</dd>
          </div>
          <div>
            <dt>Went back</dt>
            <dd>{line.figures.backs || 'never'}</dd>
          </div>
          {#if quoted}
            <div>
              <dt>Quoted</dt>
              <dd>{quoted.quote.prices[0]?.price_each.toFixed(2)} {quoted.quote.currency} each</dd>
              <dd class="of">
                {quoted.actual === null
                  ? 'no run after it is finished'
                  : `took ${quoted.actual.toFixed(2)} times its plan`}
              </dd>
            </div>
          {/if}
          <div>
            <dt>Protected with</dt>
            <dd>{page.protected?.toLowerCase() ?? (page.protection ? 'nothing yet' : 'nothing')}</dd>
            {#if page.protection !== page.protected}<dd class="of">planned {page.protection?.toLowerCase()}</dd>{/if}
          </div>
        </dl>
        {#if line.figures.account && line.figures.spent}
          <section>
            <h2>Where the time went</h2>
            <table class="lines num w-full max-w-md" aria-label="Where the time went">
              <thead class="small dim"
                ><tr
                  ><th class="text-left">Line</th><th class="!text-right">Planned</th><th class="!text-right">Took</th
                  ></tr
                ></thead
              >
              <tbody>
                {#each linesOf(line.figures.account).filter((one) => one.line !== 'waiting') as one (one.line)}
                  <tr>
                    <td>{one.label}</td>
                    <td class="text-right">{duration(one.minutes)}</td>
                    <td class="text-right">{duration(line.figures.spent[one.line])}</td>
                  </tr>
                {/each}
              </tbody>
            </table>
            <p class="small dim">
              What lies between two taps is handling, set-up or the operation that was said to be done; a gap of more
              than half an hour is a break.
            </p>
          </section>
        {/if}
        <FacesWorked faces={page.faces} well={line.well} />
        <StepTimes steps={page.steps} />
        <TimeRight run={id} {page} ondone={() => answer.ask(api.runPage(id), true)} />
        <section>
          <h2>Used up</h2>
          <ul class="small grid gap-0.5 md:grid-cols-2">
            {#each line.figures.worn as one (one.tool)}
              <li>{one.label}: {usedUp(one.worn, one.unit)}, planned {usedUp(one.planned, one.unit)}</li>
            {/each}
          </ul>
        </section>
      {:else}
        <FacesWorked faces={page.faces} well={line.well} />
        <p>
          {duration(line.figures.minutes)} of cutting. {line.figures.metal_um === null
            ? 'What came off was not measured.'
            : `${shown.say(line.figures.metal_um, 'depth')} of the surface came off at most, by measurement.`}
          {page.protected ? `Protected with ${page.protected.toLowerCase()}.` : ''}
          {page.keeping ? `To keep it so: ${page.keeping}` : ''}
        </p>
      {/if}
      {#if page.readings.length}
        <section>
          <h2>Measured</h2>
          <ul class="small grid gap-0.5">
            {#each page.readings as one (one.number)}
              <li>
                {shown.tell(one.said)}{one.verdict && reader === 'colleague' ? `: ${shown.tell(one.verdict)}` : ''}
              </li>
            {/each}
          </ul>
        </section>
      {/if}
      {#if page.notes.length}
        <section>
          <h2>Notes</h2>
          {#each page.notes as note, at (at)}<p class="whitespace-pre-line">{note}</p>{/each}
        </section>
      {/if}
      {#if pictures.value && (pictures.value.photos.length || (reader === 'colleague' && pictures.value.references.length))}
        <section>
          <h2>Photos</h2>
          <SideBySide photos={pictures.value.photos} references={pictures.value.references} />
        </section>
      {/if}
      {#if reader === 'colleague'}
        {#if page.troubles.length}
          <section>
            <h2>What went wrong</h2>
            {#each page.troubles as one, at (at)}
              <p>
                <b>{one.fault?.seen ?? 'Something else'}</b>{one.piece ? `, piece ${one.piece}` : ''}. {one.done}
                {#if one.fault}<span class="dim">Next time: {one.fault.avoid}</span>{/if}
              </p>
            {/each}
          </section>
        {/if}
        <MakeWay run={id} {page} />
        <section>
          <h2>Everything that happened</h2>
          <ol class="small" aria-label="Everything that happened">
            {#each page.told as one (one.number)}
              <li class="grid grid-cols-[2.2rem_11.5rem_1fr] gap-2" class:line-through={one.taken_back}>
                <span class="num dim text-right">{one.number}</span><span class="num dim">{when(one.at)}</span><span
                  >{shown.tell(one.said)}</span
                >
              </li>
            {/each}
          </ol>
        </section>
      {/if}
    </article>
  {/if}
</div>

<style>
  dt {
    color: var(--dim);
    font-size: 0.87rem;
  }
  dd {
    font-size: 1.15rem;
    font-weight: 650;
  }
  dd.of {
    color: var(--dim);
    font-size: 0.87rem;
    font-weight: 400;
  }
  h2 {
    margin-bottom: 0.25rem;
    font-size: 1.05rem;
  }
  @media print {
    .no-print {
      display: none;
    }
  }
</style>
