import { api, type Block, type Board, type DayEvent, type Shop } from '../../api/client';
import { ShopSettings } from '../../api/shop.svelte';
import { notices } from '../../ui/notices.svelte';

const SEARCHING_MS = 1000;
const FOLLOWING_MS = 5000;
export const SEARCH_SECONDS = 20;

/** The board on this screen: asked for again and again, more often while it is being improved. */
export class Today {
  board = $state.raw<Board | null>(null);
  shop = new ShopSettings();
  trouble = $state<string | null>(null);
  selected = $state<string | null>(null);
  busy = $state(false);
  private timer: ReturnType<typeof setTimeout> | undefined;
  private left = false;

  async begin() {
    await this.shop.load();
    await this.look();
  }

  leave() {
    this.left = true;
    clearTimeout(this.timer);
  }

  get block(): Block | null {
    return this.board?.board.blocks.find((one) => one.key === this.selected && one.kind !== 'change') ?? null;
  }

  private async look() {
    try {
      this.board = await api.day();
      this.trouble = null;
    } catch (problem) {
      this.trouble = (problem as Error).message;
    }
    if (this.left) return;
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.look(), this.board?.searching ? SEARCHING_MS : FOLLOWING_MS);
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

  private async changing(act: () => Promise<Board>) {
    if (this.busy) return;
    this.busy = true;
    await this.quietly(async () => (this.board = await act()));
    this.busy = false;
    await this.look();
  }

  private async quietly(act: () => Promise<unknown>) {
    try {
      await act();
    } catch (problem) {
      notices.say((problem as Error).message, 'trouble');
    }
  }
}
