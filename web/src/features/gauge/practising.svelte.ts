import { api, type BoreEnd, type SizeAnswer, type SizeFile } from '../../api/client';
import { notices } from '../../ui/notices.svelte';

/** One invented bore, lapped by one's own decisions. Nothing is kept: its number brings the same bore back. */
export class Practising {
  level = $state(1);
  seed = $state(0);
  size = $state.raw<SizeFile | null>(null);
  answer = $state.raw<SizeAnswer | null>(null);
  worked = $state<number[]>([]);
  end = $state.raw<BoreEnd | null>(null);
  /** Whether the size was read since the last work: a guess in the dark is allowed, and said to be one. */
  read = $state(false);
  private busy = false;

  begin(level: number, seed: number) {
    return this.quietly(async () => {
      const size = await api.practiceBore(level, seed);
      Object.assign(this, { level, seed, size, answer: null, worked: [], end: null, read: false });
    });
  }

  /** Read with the simulated gauge: everywhere at first, then where the lap was first. */
  look() {
    return this.quietly(async () => {
      const size = this.size;
      if (!size) return;
      const widest = this.answer ? (this.answer.form.widest_deg ?? 0) : null;
      const readings = await api.readPracticeBore(this.level, this.seed, [...this.worked], widest);
      const rounds = [...size.rounds];
      const last = rounds.at(-1);
      if (last?.readings.length) rounds.push({ worked_s: 0, readings });
      else if (last) rounds[rounds.length - 1] = { ...last, readings };
      const next = { ...size, rounds };
      // A bore far past its limits is read all the same, though nothing more can be said of it.
      this.size = next;
      this.read = true;
      this.answer = await api.answerSize(next);
    });
  }

  work(seconds: number) {
    if (!this.size || this.end || !this.answer) return;
    this.worked.push(seconds);
    this.size = { ...this.size, rounds: [...this.size.rounds, { worked_s: seconds, readings: [] }] };
    this.read = false;
  }

  stop() {
    return this.quietly(async () => {
      this.end = await api.endPracticeBore(this.level, this.seed, [...this.worked]);
    });
  }

  private async quietly(act: () => Promise<void>) {
    if (this.busy) return;
    this.busy = true;
    try {
      await act();
    } catch (problem) {
      notices.say((problem as Error).message, 'trouble');
    } finally {
      this.busy = false;
    }
  }
}
