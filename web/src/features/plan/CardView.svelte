<!-- The job card: one page to print, take to the bench and tick. -->
<script lang="ts">
  import Scrolling from '../../ui/Scrolling.svelte';
  import { api, type Card, type CardOperation } from '../../api/client';
  import { p, route } from '../../app/router';
  import { Answer } from '../../ui/answer.svelte';
  import { shown } from '../../units/shown.svelte';

  const id = $derived(Number(route.params.id));
  const inch = $derived(shown.system === 'inch');
  const answer = new Answer<Card>();
  $effect(() => answer.ask(api.card(id, inch), true));
  const card = $derived(answer.value);
</script>

<svelte:head><title>Job card: {card?.title ?? ''} – Kelbrast</title></svelte:head>

{#snippet operations(title: string, rows: CardOperation[])}
  {#if rows.length}
    <h2>{title}</h2>
    <ul>
      {#each rows as one (one.label)}
        <li><span class="box"></span><b>{one.label}.</b> {one.text} <b>{one.cautions.join(' ')}</b></li>
      {/each}
    </ul>
  {/if}
{/snippet}

<div class="card">
  <nav class="no-print mb-3 flex flex-wrap items-center gap-2">
    <a class="plain-button" href={p('/jobs/:id', { params: { id: String(id) } })}>Back to the job</a>
    <button class="main-button" onclick={() => window.print()}>Print</button>
    <a class="plain-button" href="/api/jobs/{id}/card.pdf?inch={inch}" download>Save as PDF</a>
    <a class="plain-button" href="/api/jobs/{id}/plan.csv" download>Plan as CSV</a>
  </nav>
  {#if answer.trouble}<p class="text-(--stop)" role="alert">{answer.trouble}</p>{/if}
  {#if card}
    <article>
      <h1>{card.title}</h1>
      <p>{card.summary}</p>
      {#if card.blocked}<p><b>{card.blocked}</b></p>{/if}
      {#if card.lay_out}<p><b>Lay out:</b> {card.lay_out}.</p>{/if}
      {#if card.order}<p><b>Order of work:</b> {card.order}.</p>{/if}
      {@render operations('Before', card.before)}
      {#each card.faces as face (face.heading)}
        <h2>{face.heading}</h2>
        {#if face.steps.length}
          <Scrolling label="Steps of {face.heading}">
            <table>
              <thead>
                <tr>
                  <th><span class="sr-only">Done</span></th><th>Tool</th><th>Machine and speed</th><th>Minutes</th><th
                    >Takes</th
                  ><th>Leaves</th><th>Until</th>
                </tr>
              </thead>
              <tbody>
                {#each face.steps as step (step.tool)}
                  <tr>
                    <td><span class="box"></span></td>
                    <td>{step.tool}</td>
                    <td>{step.speed}</td>
                    <td class="num">{step.minutes}</td>
                    <td class="num">{step.takes}</td>
                    <td class="num">{step.leaves}</td>
                    <td>{step.until}</td>
                  </tr>
                {/each}
              </tbody>
            </table></Scrolling
          >
        {/if}
      {/each}
      {@render operations('Between', card.between)}
      {@render operations('After', card.after)}
      <h2>Beware</h2>
      <p>{card.beware}</p>
      <p class="mt-3">Done by ____________________ Date ______________ Time it really took ______________</p>
    </article>
  {:else if !answer.trouble}
    <p class="dim" role="status">Writing the card …</p>
  {/if}
</div>

<style>
  .card {
    width: 100%;
    max-width: 60rem;
    margin: 0 auto;
    padding: 1rem;
  }
  article {
    background: var(--card);
    border: 1px solid var(--line);
    border-radius: 10px;
    padding: 1.2rem 1.4rem;
    font-size: 0.9rem;
  }
  h2 {
    margin: 0.7rem 0 0.2rem;
    font-weight: 700;
  }
  table {
    width: 100%;
    border-collapse: collapse;
  }
  th,
  td {
    text-align: left;
    vertical-align: top;
    padding: 0.2rem 0.6rem 0.2rem 0;
    border-bottom: 1px solid var(--line);
  }
  .num {
    white-space: nowrap;
  }
  .box {
    display: inline-block;
    width: 0.85em;
    height: 0.85em;
    margin-right: 0.45em;
    border: 1.5px solid var(--ink);
    border-radius: 2px;
    vertical-align: -0.08em;
  }
  @media print {
    @page {
      margin: 10mm;
    }
    .no-print {
      display: none;
    }
    .card {
      max-width: none;
      padding: 0;
    }
    article {
      border: 0;
      padding: 0;
      font-size: 8.2pt;
      background: #fff;
      color: #000;
    }
  }
</style>
