import { api, type Tile } from '../../api/client';
import { Answer } from '../../ui/answer.svelte';
import type { JobDraft } from './draft.svelte';

/** How the face in hand looks after each step; 0 is as found. Asked a moment after the last change, so that typing is never in its way. */
export class StepTiles {
  private answer = new Answer<Tile[]>();
  private tiles = $derived(this.answer.value ?? []);

  constructor(draft: () => JobDraft | null) {
    $effect(() => {
      const job = draft();
      const face = job?.face?.id;
      if (!job?.plan || !face || !job.facePlan?.steps.length) return;
      const asked = $state.snapshot(job.job) as typeof job.job;
      const wait = setTimeout(() => this.answer.ask(api.lightStrip(asked, face), true), 400);
      return () => clearTimeout(wait);
    });
  }

  /** After this many steps. */
  after(step: number): Tile | undefined {
    return this.tiles.find((tile) => tile.step === step);
  }
}
