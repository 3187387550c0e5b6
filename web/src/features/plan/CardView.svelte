<!-- The job card: one page to print, take to the bench and tick. -->
<script lang="ts">
  import { api, type Operation, type Plan, type Step } from '../../api/client';
  import { choices } from '../../api/catalogue.svelte';
  import { p, route } from '../../app/router';
  import { Answer } from '../../ui/answer.svelte';
  import { shown } from '../../units/shown.svelte';
  import { duration, figures, span, whole } from '../../units/units';

  const id = $derived(Number(route.params.id));
  const answer = new Answer<Plan>();
  $effect(() => answer.ask(api.keptPlan(id)));
  const plan = $derived(answer.value);
  const trouble = $derived(answer.trouble);

  const faces = $derived(
    [...(plan?.faces ?? [])].sort((a, b) => (plan?.order.indexOf(a.name) ?? 0) - (plan?.order.indexOf(b.name) ?? 0)),
  );
  const cautions = $derived([
    ...new Set([...(plan?.cautions ?? []), ...faces.flatMap((face) => face.steps.flatMap((step) => step.cautions))]),
  ]);
  const when = (moment: Operation['when']) => (plan?.operations ?? []).filter((one) => one.when === moment);

  function turning(step: Step): string {
    const speed = shown.say(step.speed_m_s, 'speed', 3);
    return step.rpm === null ? speed : `${whole(step.rpm)} rev/min, ${speed}`;
  }
</script>

<svelte:head><title>Job card: {plan?.title ?? ''} – Kelbrast</title></svelte:head>

{#snippet operations(title: string, rows: Operation[])}
  {#if rows.length}
    <h2>{title}</h2>
    <ul>
      {#each rows as one (one.id)}
        <li>
          <span class="box"></span><b>{one.label}</b>
          ({duration(one.minutes)}{one.waiting_minutes
            ? `, then ${duration(one.waiting_minutes)} of waiting`
            : ''}{one.within_minutes ? `, within ${duration(one.within_minutes)}` : ''}). {one.text}
          <b>{one.cautions.join(' ')}</b>
        </li>
      {/each}
    </ul>
  {/if}
{/snippet}

<div class="card">
  <nav class="no-print mb-3 flex flex-wrap items-center gap-2">
    <a class="plain-button" href={p('/jobs/:id', { params: { id: String(id) } })}>Back to the job</a>
    <button class="main-button" onclick={() => window.print()}>Print</button>
    <a class="plain-button" href="/api/jobs/{id}/card.pdf?inch={shown.system === 'inch'}" download>Save as PDF</a>
    <a class="plain-button" href="/api/jobs/{id}/plan.csv" download>Plan as CSV</a>
  </nav>
  {#if trouble}<p class="text-(--stop)" role="alert">{trouble}</p>{/if}
  {#if plan}
    <article>
      <h1>{plan.title}</h1>
      <p>
        {choices.material(plan.material)?.label ?? plan.material}, {plan.pieces}
        {plan.pieces === 1 ? 'piece' : 'pieces'}. {span(plan)} each at the abrasives, {duration(plan.minutes_all)} in all;
        {duration(plan.around_minutes)} each around them{plan.waiting_minutes
          ? `, ${duration(plan.waiting_minutes)} of waiting`
          : ''}.
      </p>
      {#if plan.blocked}<p><b>{plan.blocked}</b></p>{/if}
      {#if plan.gather.length}
        <p>
          <b>Lay out:</b>
          {plan.gather.map((one) => `${one.label} (${one.count} ${one.unit}${one.count > 1 ? 's' : ''})`).join(', ')}.
        </p>
      {/if}
      {#if plan.order.length > 1}<p><b>Order of work:</b> {plan.order.join(', then ')}.</p>{/if}
      {@render operations('Before', when('before'))}
      {#each faces as face (face.name)}
        <h2>
          {face.name}{#if face.keep_off}: keep off, mask it{:else if !face.possible}: not possible. {shown.tell(
              face.reason_said,
            )}{:else if face.edge?.wanted === 'sharp'}: stays sharp, let no wheel roll over it{:else if !face.steps.length}:
            as wanted already{:else}: {span(face)}, {shown.say(
              Math.max(0, face.metal_um - face.above_um),
              'depth',
            )}{face.limit_um ? ` of ${shown.say(face.limit_um, 'depth')}` : ''} off{/if}
        </h2>
        {#if face.steps.length}
          <table>
            <thead>
              <tr>
                <th><span class="sr-only">Done</span></th><th>Tool</th><th>Machine and speed</th><th>Time</th><th
                  >Takes</th
                ><th>Leaves</th><th>Until</th>
              </tr>
            </thead>
            <tbody>
              {#each face.steps as step, at (at)}
                <tr>
                  <td><span class="box"></span></td>
                  <td
                    ><b>{at + 1}. {step.label}</b><br />{step.pressure === 'light'
                      ? 'light pressure'
                      : 'light to medium'}{step.wet ? ', wet' : ''}</td
                  >
                  <td>{step.machine_label}<br />{turning(step)}</td>
                  <td class="num">{span(step)}</td>
                  <td class="num">{shown.say(step.takes_um, 'depth')}</td>
                  <td class="num">{shown.say(step.leaves_um, 'depth')}</td>
                  <td
                    >{step.check}
                    {#if step.longest_stay_s !== null}At most {figures(step.longest_stay_s)} s on one spot.{/if}
                    {#if step.rests}Put it down to cool {step.rests.count} times.{/if}</td
                  >
                </tr>
              {/each}
            </tbody>
          </table>
        {/if}
      {/each}
      {@render operations('Between', when('between'))}
      {@render operations('After', when('after'))}
      <h2>Beware</h2>
      <p>{cautions.join(' ')}</p>
      <p class="mt-3">Done by ____________________ Date ______________ Time it really took ______________</p>
    </article>
  {:else if !trouble}
    <p class="dim" role="status">Writing the card …</p>
  {/if}
</div>

<style>
  .card {
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
