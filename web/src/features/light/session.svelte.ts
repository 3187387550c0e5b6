import { api, type Progress, type Question, type Right } from '../../api/client';
import { notices } from '../../ui/notices.svelte';

const KEY = 'kelbrast.practice.person';
export const TEN = 10;

/** Ten questions for one person. */
export class Session {
  person = $state(localStorage.getItem(KEY) ?? '');
  asked = $state.raw<Question | null>(null);
  told = $state.raw<Right | null>(null);
  progress = $state.raw<Progress | null>(null);
  chosen = $state<number | null>(null);
  /** Whether each of the questions so far was answered rightly. */
  answers = $state<boolean[]>([]);
  running = $state(false);
  private busy = false;

  get over(): boolean {
    return this.answers.length >= TEN && this.told === null;
  }

  async begin() {
    const name = this.person.trim();
    if (!name) return;
    localStorage.setItem(KEY, name);
    this.person = name;
    this.answers = [];
    this.running = true;
    await this.next();
  }

  async next() {
    this.told = null;
    this.chosen = null;
    this.asked = null; // an answer cannot go to the question before
    if (this.answers.length >= TEN) return this.look();
    await this.quietly(async () => (this.asked = await api.question(this.person)));
  }

  async choose(at: number) {
    const asked = this.asked;
    if (!asked || this.told || at >= asked.options.length) return;
    this.chosen = at;
    await this.quietly(async () => {
      this.told = await api.answer(this.person, asked, at);
      this.answers.push(this.told.right);
    });
  }

  /** How the person has come on; a question on its way is not held up by it. */
  async look() {
    const name = this.person.trim();
    if (!name) return;
    try {
      this.progress = await api.progress(name);
    } catch (problem) {
      notices.say((problem as Error).message, 'trouble');
    }
  }

  private async quietly(act: () => Promise<unknown>) {
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
