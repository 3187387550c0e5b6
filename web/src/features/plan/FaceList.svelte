<!-- The faces of the part, one line each; the one in hand is open. -->
<script lang="ts">
  import ChevronRight from '@lucide/svelte/icons/chevron-right';
  import { Accordion } from '@skeletonlabs/skeleton-svelte';
  import type { FacePlan } from '../../api/client';
  import { limitSaid } from '../../api/face-said';
  import { duration } from '../../units/units';
  import type { JobDraft } from './draft.svelte';
  import FaceEditor from './FaceEditor.svelte';

  let { draft }: { draft: JobDraft } = $props();
  const inHand = $derived(draft.face?.id ?? '');

  function minutes(plan: FacePlan | undefined): string {
    if (!plan) return '';
    if (plan.keep_off) return 'masked';
    return plan.possible ? duration(plan.minutes) : 'not possible';
  }
</script>

<section class="panel overflow-hidden" aria-label="Faces of this part">
  <Accordion
    class="gap-0 space-y-0"
    value={[inHand]}
    onValueChange={({ value }) => value[0] && draft.selectFaceBy(value[0])}
  >
    {#each draft.job.faces as face, at (face.id)}
      {@const plan = draft.plan?.faces[at]}
      <Accordion.Item value={face.id ?? ''} class="border-b border-(--line) last:border-0">
        <Accordion.ItemTrigger
          class="flex min-h-12 w-full items-center gap-2 px-3.5 py-2 text-left hover:bg-(--raised)"
        >
          <span class="min-w-0 flex-1">
            <b class="block font-semibold" class:dim={face.keep_off}>{face.name}</b>
            {#if plan?.limit_note}<span class="small block font-semibold text-(--stop)">{limitSaid(face, plan)}</span
              >{/if}
          </span>
          <span class="dim num" class:text-(--stop)={plan && !plan.possible && !plan.keep_off}>{minutes(plan)}</span>
          <Accordion.ItemIndicator class="dim transition-transform data-[state=open]:rotate-90"
            ><ChevronRight size={16} aria-hidden="true" /></Accordion.ItemIndicator
          >
        </Accordion.ItemTrigger>
        <Accordion.ItemContent class="p-0">
          {#if at === draft.faceAt}{#key face.id}<FaceEditor {draft} {face} />{/key}{/if}
        </Accordion.ItemContent>
      </Accordion.Item>
    {/each}
  </Accordion>
</section>
