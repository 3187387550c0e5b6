import { api, type Block, type Board, type DayEvent, type Shop } from '../../api/client';
import { ShopSettings } from '../../api/shop.svelte';
import { timeAt } from '../../charts/board';
import { counted, duration } from '../../units/units';
import { notices } from '../../ui/notices.svelte';

import { marksOf, type Mark } from './marks';

const SEARCHING_MS = 1000;
const FOLLOWING_MS = 5000;
export const SEARCH_SECONDS = 20;

/** The board on this screen: asked for again and again, more often while it is being improved. */
export class Schedule {
  board = $state.raw<Board | null>(null);
  shop = new ShopSettings();
  trouble = $state<string | null>(null);
  selected = $state<string | null>(null);
  /** Blocks that are drawn as one with it. */
  private together = $state<string[]>([]);
  private pending = $state(0);
  private last: Promise<void> = Promise.resolve();
  private timer: ReturnType<typeof setTimeout> | undefined;
  private left = false;
  /** How good the board was when the search began. */
  private before: Board['board'] | null = null;

  async begin() {
    await this.shop.load();
    await this.look();
  }

  leave() {
    this.left = true;
    clearTimeout(this.timer);
  }

  get busy(): boolean {
    return this.pending > 0;
  }

  get block(): Block | null {
    return this.board?.board.blocks.find((one) => one.key === this.selected && one.kind !== 'change') ?? null;
  }

  get marks(): Map<string, Mark> {
    return this.lettered;
  }
  private lettered = $derived(marksOf(this.board?.board.jobs ?? []));

  /** The job of a block, by its number. */
  jobOf = (block: { key: string }): string => String(this.board?.ids[block.key] ?? '');

  markOf = (block: { key: string }): Mark | undefined => this.lettered.get(this.jobOf(block));

  /** Every block of it is over. */
  isDone(job: string): boolean {
    const mine = (this.board?.board.blocks ?? []).filter((one) => this.jobOf(one) === job);
    return mine.length > 0 && mine.every((one) => this.board?.done.includes(one.key));
  }

  /** A minute of the board as a person says it, with the day where that is not the first. */
  said(minute: number): string {
    return timeAt(minute, this.board?.board.begins ?? '00:00', this.board?.day);
  }

  choose(key: string, together: string[] = []) {
    this.selected = key;
    if (!together.includes(key)) together = this.together.includes(key) ? this.together : [key];
    this.together = together;
  }

  /** The chosen block with those that are drawn as one with it. */
  get piece(): Block[] {
    const keys = this.together;
    return (this.board?.board.blocks ?? []).filter((one) => keys.includes(one.key) && one.kind !== 'change');
  }

  private async look() {
    try {
      this.board = await api.day();
      this.trouble = null;
      this.sayWhatWasFound(this.board);
    } catch (problem) {
      this.trouble = (problem as Error).message;
    }
    if (this.left) return;
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.look(), this.board?.searching ? SEARCHING_MS : FOLLOWING_MS);
  }

  /** When a search is over: what it gained, if anything. */
  private sayWhatWasFound({ searching, board }: Board) {
    if (searching) {
      this.before ??= board;
      return;
    }
    const before = this.before;
    this.before = null;
    if (!before) return;
    const gained = [
      [before.late_min - board.late_min, 'less late'],
      [before.ends_min - board.ends_min, 'earlier'],
    ] as const;
    const best = gained.find(([minutes]) => minutes > 0);
    const changes = before.changes - board.changes;
    if (best) notices.say(`A better order was found: ${duration(best[0])} ${best[1]}.`);
    else if (changes > 0) notices.say(`A better order was found: ${counted(changes, 'wheel change')} less.`);
  }

  /** Look for a better board in the background. */
  search = () => this.changing(() => api.searchDay(SEARCH_SECONDS));

  async stop() {
    await this.quietly(() => api.stopSearch());
    await this.look();
  }

  pin = (block: string, from_min: number, person: string | null, spindle: number | null) =>
    this.changing(() => api.pinBlock(block, { from_min: Math.max(0, Math.round(from_min)), person, spindle }));

  /** Something happened: the rest of the day is planned around it. */
  happen = (event: DayEvent) => this.changing(() => api.happened(event));

  forget = (number: number) => this.changing(() => api.forgetEvent(number));

  finish = (block: string) => this.changing(() => api.blockDone(block));

  unpin = (block: string) => this.changing(() => api.unpinBlock(block));

  async changeShop(next: Partial<Shop>) {
    await this.quietly(() => this.shop.change(next));
    await this.look();
  }

  /** One change after the other: a press while another is on its way is not lost. */
  private changing(act: () => Promise<Board>): Promise<void> {
    this.pending++;
    this.last = this.last.then(async () => {
      await this.quietly(async () => (this.board = await act()));
      this.pending--;
      await this.look();
    });
    return this.last;
  }

  private async quietly(act: () => Promise<unknown>) {
    try {
      await act();
    } catch (problem) {
      notices.say((problem as Error).message, 'trouble');
    }
  }
}
