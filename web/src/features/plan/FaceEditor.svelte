<!-- A face in five answers; one of them is open at a time. -->
<script lang="ts">
  import { untrack } from 'svelte';
  import { Accordion } from '@skeletonlabs/skeleton-svelte';
  import type { Face } from '../../api/client';
  import { edgeSaid, foundSaid, limitSaid, sizeSaid, spotsSaid, wantedSaid } from '../../api/face-said';
  import TextField from '../../ui/TextField.svelte';
  import Answer from './Answer.svelte';
  import type { JobDraft } from './draft.svelte';
  import EdgeFields from './EdgeFields.svelte';
  import AreaFields from './AreaFields.svelte';
  import FoundFields from './FoundFields.svelte';
  import LimitFields from './LimitFields.svelte';
  import PlaceFields from './PlaceFields.svelte';
  import SpotsFields from './SpotsFields.svelte';
  import WantFields from './WantFields.svelte';

  let { draft, face }: { draft: JobDraft; face: Face } = $props();
  const taken = $derived(draft.job.faces.filter((other) => other !== face).map((other) => other.name));
  const plan = $derived(draft.facePlan);
  // What was just added is named first.
  let open = $state(untrack(() => (draft.justAdded ? 'part' : '')));
  const faulty = (...keys: string[]) =>
    draft.faults.some((fault) =>
      fault.about.some((field) => keys.some((key) => field.startsWith(`faces[${draft.faceAt}].${key}`))),
    );

  function complaint(name: string): string | null {
    if (!name.trim()) return face.edge ? 'An edge needs a name' : 'A face needs a name';
    return taken.includes(name) ? 'Another face or edge has this name' : null;
  }
</script>

<Accordion
  value={open ? [open] : []}
  onValueChange={({ value }) => (open = value[0] ?? '')}
  collapsible
  class="gap-0 space-y-0 pb-1"
>
  <Answer
    id="part"
    question={face.edge ? 'Edge' : 'Part'}
    said={face.edge ? edgeSaid(face.edge) : face.keep_off ? 'Masked: not touched' : sizeSaid(face, plan?.area_cm2)}
    faulty={faulty('name', 'area_cm2', 'shape', 'edge')}
    open={open === 'part'}
  >
    <TextField
      label="Name"
      fresh={draft.justAdded}
      value={face.name}
      {complaint}
      onchange={(name) => draft.changeFace({ name })}
    />
    {#if face.edge}
      <EdgeFields {draft} edge={face.edge} />
    {:else}
      <label class="flex items-center gap-2">
        <input
          type="checkbox"
          checked={face.keep_off}
          onchange={(event) => draft.changeFace({ keep_off: event.currentTarget.checked })}
        />
        Mask: do not touch
      </label>
      {#if !face.keep_off}<AreaFields {draft} {face} />{/if}
    {/if}
    {#if face.edge || draft.job.faces.filter((other) => !other.edge).length > 1}
      <button class="small dim justify-self-start underline" onclick={() => draft.removeFace(draft.faceAt)}
        >Remove this {face.edge ? 'edge' : 'face'}</button
      >
    {/if}
  </Answer>
  {#if !face.edge && !face.keep_off}
    <Answer
      id="found"
      question="What most of it looks like"
      said={foundSaid(face)}
      faulty={faulty('found')}
      open={open === 'found'}
    >
      <FoundFields {draft} {face} />
    </Answer>
    <Answer
      id="spots"
      question="Anything deeper?"
      said={spotsSaid(face)}
      faulty={faulty('spots')}
      open={open === 'spots'}
    >
      <SpotsFields {draft} {face} />
    </Answer>
  {/if}
  {#if face.edge ? face.edge.wanted !== 'sharp' : !face.keep_off}
    <Answer id="want" question="Finish" said={wantedSaid(face)} faulty={faulty('want')} open={open === 'want'}>
      <WantFields {draft} {face} />
    </Answer>
  {/if}
  {#if !face.edge && !face.keep_off}
    <Answer
      id="limits"
      question="Limits and reach"
      said={limitSaid(face, plan)}
      faulty={faulty('limit_um', 'coat_um', 'keep', 'layer', 'size_left', 'fit', 'thickness', 'reach')}
      open={open === 'limits'}
    >
      <LimitFields {draft} {face} />
      <PlaceFields {draft} {face} />
    </Answer>
  {/if}
</Accordion>
