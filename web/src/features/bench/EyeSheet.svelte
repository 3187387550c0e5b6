<!-- The eye at the light check of the step in hand. -->
<script lang="ts">
  import { api } from '../../api/client';
  import { eyeAtBench } from '../../api/eye';
  import Dialog from '../../ui/Dialog.svelte';
  import type { EyeTold } from '../../ui/eye/asked.svelte';
  import EyePanel from '../../ui/eye/EyePanel.svelte';
  import { notices } from '../../ui/notices.svelte';
  import { smaller } from '../../ui/smaller';
  import { shown } from '../../units/shown.svelte';
  import type { BenchRun } from './run.svelte';

  interface Props {
    bench: BenchRun;
    open: boolean;
    onclose: () => void;
    /** A deep one was found. */
    onback: () => void;
  }
  let { bench, open, onclose, onback }: Props = $props();

  async function keep(photo: Blob, wide: number, told: EyeTold): Promise<boolean> {
    try {
      const added = await api.addPhoto(bench.run.id, await smaller(photo), 'stage', wide);
      const hand = bench.hand;
      const at = hand ? { piece: hand.piece, face: hand.face_id, route: hand.route, step: hand.step } : {};
      const words = told.said[0] ? `The eye: ${shown.tell(told.said[0])}` : '';
      return await bench.tap({ kind: 'photo', photo: added.id, words, ...at });
    } catch (problem) {
      notices.say((problem as Error).message, 'trouble');
      return false;
    }
  }
</script>

<Dialog bind:open={() => open, (now) => now || onclose()} title="Ask the eye" wide>
  {#if bench.hand?.eye_refused}
    <p role="status">{shown.tell(bench.hand.eye_refused)}</p>
    <button class="main-button mt-3 min-h-14" onclick={onclose}>My eye decides</button>
  {:else}
    <EyePanel asks={eyeAtBench(bench.run.id)} onkeep={keep} {onback} ondone={onclose} />
  {/if}
</Dialog>
