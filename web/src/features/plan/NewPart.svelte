<!-- A new part in four questions, one open at a time. What is not answered is taken as it says; all of it can be changed later. -->
<script lang="ts">
  import Check from '@lucide/svelte/icons/check';
  import { Accordion } from '@skeletonlabs/skeleton-svelte';
  import { choices } from '../../api/catalogue.svelte';
  import { foundSaid, sizeSaid, spotsSaid, wantedSaid } from '../../api/face-said';
  import Stair from '../../charts/Stair.svelte';
  import { spanOf } from '../../charts/stair';
  import OwnChoice from '../../own/OwnChoice.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import { capital } from '../../units/units';
  import AreaFields from './AreaFields.svelte';
  import type { JobDraft } from './draft.svelte';
  import FoundFields from './FoundFields.svelte';
  import SpotsFields from './SpotsFields.svelte';
  import WantFields from './WantFields.svelte';

  interface Props {
    draft: JobDraft;
    onphoto: () => void;
    ondone: () => void;
  }
  let { draft, onphoto, ondone }: Props = $props();
  const QUESTIONS = [
    { id: 'part', asks: 'What is the part?' },
    { id: 'found', asks: 'What does most of it look like?' },
    { id: 'spots', asks: 'Is anything deeper than that?' },
    { id: 'want', asks: 'What finish?' },
  ] as const;
  type Question = (typeof QUESTIONS)[number]['id'];
  let open = $state<Question | ''>('part');
  let answered = $state<Question[]>([]);
  const face = $derived(draft.face);
  const plan = $derived(draft.facePlan);

  const deepest = $derived(plan?.rest_um ?? plan?.steps[0]?.from_um ?? null);
  const wanted = $derived(plan?.wanted_depth_um ?? null);

  function said(question: Question): string {
    if (!face) return '';
    const material = choices.all?.materials.find((one) => one.id === draft.job.material)?.label ?? '';
    const say = {
      part: () => `${material}, ${sizeSaid(face, plan?.area_cm2)}`,
      found: () => foundSaid(face),
      spots: () => spotsSaid(face),
      want: () => wantedSaid(face),
    };
    return capital(say[question]());
  }

  /** An answer that was opened has been seen: leaving it is as good as giving it. */
  function turn(to: Question | '') {
    if (open && !answered.includes(open)) answered.push(open);
    open = to;
  }

  function next() {
    const after = QUESTIONS[QUESTIONS.findIndex((one) => one.id === open) + 1];
    if (after) turn(after.id);
    else ondone();
  }
</script>

{#if face}
  <div
    class="grid flex-1 content-start gap-3.5 px-3 md:content-stretch pb-3.5 md:min-h-0 md:grid-cols-[27rem_minmax(0,1fr)] md:px-4.5"
  >
    <section class="panel self-start px-5 py-3 md:max-h-full md:overflow-y-auto" aria-label="Four questions">
      <Accordion
        class="gap-0 space-y-0"
        collapsible
        value={[open]}
        onValueChange={({ value }) => turn((value[0] ?? '') as Question | '')}
      >
        {#each QUESTIONS as { id, asks }, at (id)}
          <Accordion.Item value={id} class="border-b border-(--line)">
            <Accordion.ItemTrigger class="flex min-h-13 w-full items-center gap-3 py-2 text-left">
              <span class="disc num" class:done={answered.includes(id) && open !== id}>
                {#if answered.includes(id) && open !== id}<Check size={15} aria-hidden="true" />{:else}{at + 1}{/if}
              </span>
              <span class="min-w-0 flex-1">
                <b class="block font-semibold" class:small={open !== id} class:dim={open !== id}>{asks}</b>
                {#if open !== id}<span class="block" class:dim={!answered.includes(id)}
                    >{answered.includes(id) ? said(id) : `${said(id)}, unless you say otherwise`}</span
                  >{/if}
              </span>
              {#if answered.includes(id) && open !== id}<span class="small font-semibold underline">Change</span>{/if}
            </Accordion.ItemTrigger>
            <Accordion.ItemContent class="p-0 pb-3.5 pl-9.5">
              {#if open === id}
                <div class="grid gap-3">
                  {#if id === 'part'}
                    <OwnChoice
                      label="Material"
                      kind="material"
                      value={draft.job.material}
                      options={choices.materials}
                      onchange={(material) => {
                        draft.job.material = material;
                        draft.changed();
                      }}
                    />
                    <AreaFields {draft} {face} />
                    <NumberField
                      label="Pieces"
                      value={draft.job.pieces}
                      integer
                      faults={draft.faultsAt('pieces')}
                      onchange={(pieces) => {
                        draft.job.pieces = pieces;
                        draft.changed();
                      }}
                    />
                  {:else if id === 'found'}
                    <FoundFields {draft} {face} />
                  {:else if id === 'spots'}
                    <p class="small dim">A dent, a gouge, pits in one corner: what is worked in its own place first.</p>
                    {#if !face.spots?.length}<button class="main-button justify-self-start" onclick={next}>No</button
                      >{/if}
                    <SpotsFields {draft} {face} />
                  {:else}
                    <WantFields {draft} {face} />
                  {/if}
                  {#if id !== 'spots' || face.spots?.length}
                    <button class="main-button justify-self-start" onclick={next}
                      >{id === 'want' ? 'Show the plan' : 'Next'}</button
                    >
                  {/if}
                </div>
              {/if}
            </Accordion.ItemContent>
          </Accordion.Item>
        {/each}
      </Accordion>
      <p class="flex flex-wrap gap-x-5 gap-y-1 pt-3">
        <button class="small font-semibold underline" onclick={onphoto}>Start from a photo</button>
        <button class="small font-semibold underline" onclick={ondone}>Everything at once</button>
      </p>
    </section>
    <section class="panel relative hidden overflow-hidden md:block md:min-h-76" aria-label="What is known so far">
      <Stair
        steps={[]}
        span={spanOf([], { wantedUm: wanted, restUm: deepest })}
        wantedUm={open === 'want' || answered.includes('want') ? wanted : null}
        wantedLabel={said('want')}
        wantedLowUm={null}
        foundUm={answered.includes('found') ? deepest : null}
        foundLabel={said('found')}
        selected={-1}
        onselect={() => {}}
      />
      <p class="dim absolute inset-0 grid place-content-center text-center">
        The steps appear here when the finish is chosen.
      </p>
    </section>
  </div>
{/if}

<style>
  .disc {
    display: grid;
    place-items: center;
    flex: none;
    width: 26px;
    height: 26px;
    border-radius: 999px;
    border: 1.5px solid var(--dim);
    font-weight: 700;
    font-size: 0.9rem;
  }
  .disc.done {
    background: var(--go-soft);
    border-color: var(--go);
    color: var(--go);
  }
</style>
