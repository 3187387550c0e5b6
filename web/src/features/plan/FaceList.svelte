<!-- The faces of the part; the one in hand is edited in place. -->
<script lang="ts">
  import Plus from '@lucide/svelte/icons/plus';
  import { edgeSaid, foundSaid, wantedSaid } from '../../api/face-said';
  import { shown } from '../../units/shown.svelte';
  import type { JobDraft } from './draft.svelte';
  import FaceEditor from './FaceEditor.svelte';

  let { draft }: { draft: JobDraft } = $props();

  /** The face in hand is edited where it stands; after a change of face its head must be in sight. Only the list moves. */
  function intoView(element: HTMLElement) {
    const list = element.closest('section');
    if (!list) return;
    const above = element.getBoundingClientRect().top - list.getBoundingClientRect().top;
    if (above < 0 || above > list.clientHeight / 2) list.scrollTop += above;
  }
</script>

<section class="panel min-h-0 overflow-auto md:row-span-2 lg:row-span-1" aria-label="Faces of this part">
  <h2 class="dim px-3 pt-3 pb-1.5">Faces of this part</h2>
  {#each draft.job.faces as face, at (at)}
    {@const plan = draft.plan?.faces[at]}
    {@const off = Math.max(0, (plan?.metal_um ?? 0) - (plan?.above_um ?? 0))}
    <div class="border-b border-(--line)" class:on={at === draft.faceAt} {@attach at === draft.faceAt && intoView}>
      <button
        class="grid w-full gap-0.5 px-3 py-2.5 text-left"
        aria-expanded={at === draft.faceAt}
        onclick={() => draft.selectFace(at)}
      >
        <span class="flex justify-between gap-2">
          <b class="font-semibold" class:dim={face.keep_off}>{face.name}</b>
          {#if plan && !plan.possible}<span class="small font-semibold text-(--stop)">not possible</span>{/if}
        </span>
        <span class="small dim"
          >{#if face.edge}{edgeSaid(face.edge)}{:else}{plan ? shown.say(plan.area_cm2, 'area') : ''} · {foundSaid(face)} ·
            {face.keep_off ? 'keep off' : `to: ${wantedSaid(face)}`}{/if}</span
        >
        {#if plan?.possible && plan.limit_um && plan.steps.length}
          <span class="mt-1 block h-[7px] overflow-hidden rounded bg-(--line)">
            <i
              class="block h-full"
              style:width="{Math.min(100, (100 * off) / plan.limit_um)}%"
              style:background={off > 0.75 * plan.limit_um ? 'var(--stop)' : 'var(--t2)'}
            ></i>
          </span>
          <span class="small dim num"
            >{shown.bare(off, 'depth')} of {shown.say(plan.limit_um, 'depth')} may come off</span
          >
        {/if}
      </button>
      {#if at === draft.faceAt}<FaceEditor {draft} {face} />{/if}
    </div>
  {/each}
  <div class="p-3">
    <button class="plain-button w-full" onclick={() => draft.addFace()}
      ><Plus size={16} />Add a face <kbd class="dim">N</kbd></button
    >
    <button class="plain-button mt-2 w-full" onclick={() => draft.addEdge()}><Plus size={16} />Add an edge</button>
    {#if (draft.plan?.order.length ?? 0) > 1}
      <p class="small dim mt-3">Order of work: {draft.plan?.order.join(', then ')}.</p>
    {/if}
  </div>
</section>

<style>
  .on {
    box-shadow: inset 4px 0 0 var(--ink);
    background: var(--raised);
  }
</style>
