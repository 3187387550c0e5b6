<!-- All faces of the part side by side, on one scale of depths; the numbers are the set-ups in the order of work. -->
<script lang="ts">
  import { choices } from '../../api/catalogue.svelte';
  import { edgeSaid, foundSaid, spotsSaid } from '../../api/face-said';
  import Stair from '../../charts/Stair.svelte';
  import { temperColour } from '../../charts/temper';
  import { shown } from '../../units/shown.svelte';
  import { capital, duration } from '../../units/units';
  import type { JobDraft } from './draft.svelte';
  import { inOrderOfWork, setUpNumbers, sharedSpan, stairSteps } from './stairs';
  import Unworked from './Unworked.svelte';

  interface Props {
    draft: JobDraft;
    /** A step was pressed, counted from 0: the plan of its face is wanted. */
    onstep: (face: string, at: number) => void;
    onface: (face: string) => void;
  }
  let { draft, onstep, onface }: Props = $props();
  const plan = $derived(draft.plan);
  const faces = $derived(plan ? inOrderOfWork(plan) : []);
  const span = $derived(sharedSpan(faces));
  /** Wide by their minutes, but never narrower than what can be read. */
  const columns = $derived(faces.map((face) => `minmax(16.5rem, ${Math.max(face.minutes, 1)}fr)`).join(' '));

  const described = (id: string) => draft.job.faces.find((face) => face.id === id);

  function wanted(id: string): string {
    const finish = described(id)?.want.finish;
    return (finish && choices.finish(finish)?.label) ?? 'Wanted';
  }

  function state(id: string): string {
    const face = described(id);
    if (!face) return '';
    if (face.edge) return edgeSaid(face.edge);
    return [foundSaid(face), ...(face.spots?.length ? [spotsSaid(face)] : [])].join('; ');
  }
</script>

<section
  class="plan grid min-w-0 grid-rows-[max-content_minmax(16rem,1fr)_max-content] gap-x-3.5 overflow-auto pb-1 md:min-h-0 md:flex-1"
  style:grid-template-columns={columns}
  class:stale={draft.stale}
  aria-busy={draft.stale}
  aria-label="Plan of the whole part"
>
  {#each faces as face (face.id)}
    {@const numbers = plan ? setUpNumbers(plan, face.id) : []}
    <section class="panel row-span-3 grid min-w-0 grid-cols-1 grid-rows-subgrid overflow-hidden" aria-label={face.name}>
      <button class="self-start px-3.5 pt-2.5 text-left hover:bg-(--raised)" onclick={() => onface(face.id)}>
        <b class="text-[1.05rem]">{face.name}</b>
        <span class="dim num">{face.possible ? duration(face.minutes) : 'not possible'}</span>
        <span class="small dim block">{capital(state(face.id))}</span>
        {#each [face.limit_note, face.end_note] as note, at (at)}
          {#if note}<span class="small block text-(--stop)">{shown.tell(note)}</span>{/if}
        {/each}
      </button>
      {#if face.steps.length}
        <div class="min-h-0">
          <Stair
            steps={stairSteps(face)}
            {numbers}
            {span}
            wantedLabel={wanted(face.id)}
            wantedUm={face.wanted_depth_um}
            wantedLowUm={face.wanted_low_um}
            restUm={face.rest_um ?? null}
            selected={-1}
            onselect={(at) => onstep(face.id, at)}
          />
        </div>
        <ol class="border-t border-(--line)" aria-label="Steps of {face.name}">
          {#each face.steps as step, at (at)}
            <li class="border-b border-(--line) last:border-0">
              <button
                class="flex min-h-9 w-full items-center gap-3 px-3.5 py-1 text-left hover:bg-(--raised)"
                onclick={() => onstep(face.id, at)}
              >
                <b
                  class="num grid size-6 shrink-0 place-items-center rounded-full text-(--card)"
                  style:background={temperColour(step.grain_um)}>{numbers[at]}</b
                >
                <span class="min-w-0 flex-1"
                  ><b class="font-semibold">{step.label}</b>{#if step.zone}
                    <span class="dim">{step.zone.spots.join(', ')}</span>{/if}</span
                >
                <b class="num font-semibold">{duration(step.minutes)}</b>
              </button>
            </li>
          {/each}
        </ol>
      {:else}
        <div class="row-span-2">
          <Unworked
            plan={face}
            onwant={(want) => {
              draft.selectFaceBy(face.id);
              draft.changeFace({ want });
            }}
          />
        </div>
      {/if}
    </section>
  {:else}
    <p class="dim m-auto" role="status">{draft.trouble ? '' : 'Planning …'}</p>
  {/each}
</section>
