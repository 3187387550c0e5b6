import type { Sentence } from '../../units/sentence';
import type { LiveRule } from './live';

/** What the person says of two photos: how wide, how the new marks run (degrees, anticlockwise), how old ones cross them. */
export interface EyeStated {
  across_mm: number;
  lay_deg: number;
  crossing_deg: number;
}

export interface EyeTold {
  verdict: 'seen' | 'look-again' | 'none-seen' | 'refused';
  said: Sentence[];
  /** From and to, in widths of photo 2. */
  lines: [number, number, number, number][];
}

/** How the new marks run on photo 1, to be confirmed; null where they do not show, and why. */
export interface LayTold {
  lay_deg: number | null;
  /** At which old marks cross them where nobody says otherwise. */
  crossing_deg: number;
  said: Sentence[];
}

/** What a camera shows at a width, and whether that is enough. */
export interface ShowsTold extends LiveRule {
  enough: boolean;
  said: Sentence[];
}

/** The eye as it can be asked: before any photo, after the first, and after both. */
export interface AskEye {
  shows: (across_mm: number, pixels?: number) => Promise<ShowsTold>;
  lay: (across: Blob, across_mm: number) => Promise<LayTold>;
  /** `told` is called with the share that is done. */
  look: (across: Blob, along: Blob, stated: EyeStated, told: (share: number) => void) => Promise<EyeTold>;
}

/** The eye asked at a light check: a photo with the lamp across, the lay on it confirmed, one with the lamp along, an answer. */
export class AskedEye {
  across = $state.raw<Blob | null>(null);
  along = $state.raw<Blob | null>(null);
  /** How the new marks run on photo 1, as it was found or as the person turned it. */
  found = $state.raw<LayTold | null>(null);
  lay = $state<number | null>(null);
  confirmed = $state(false);
  crossing = $state(0);
  wide = $state(35);
  share = $state<number | null>(null);
  answer = $state.raw<EyeTold | null>(null);
  trouble = $state('');
  private turn = 0;
  private readonly eye: AskEye;

  constructor(eye: AskEye) {
    this.eye = eye;
  }

  /** What comes next: a photo, the lay to be confirmed, or the answer. */
  get now(): 'across' | 'lay' | 'along' | 'answer' {
    if (!this.across) return 'across';
    if (!this.confirmed) return 'lay';
    return this.along ? 'answer' : 'along';
  }

  async take(photo: Blob) {
    if (this.now === 'across') {
      this.across = photo;
      await this.find();
    } else {
      this.along = photo;
      await this.look();
    }
  }

  /** The lamp across once more. */
  again() {
    this.turn++;
    this.across = this.found = this.lay = null;
    this.confirmed = false;
    this.onceMore();
  }

  /** The lamp along once more; how the new marks run is known. */
  onceMore() {
    this.turn++;
    this.along = this.answer = this.share = null;
    this.trouble = '';
  }

  confirm() {
    this.confirmed = this.lay !== null;
  }

  private find() {
    const { across, wide } = this;
    return this.waiting(async (mine) => {
      if (!across) return;
      const found = await this.eye.lay(across, wide);
      if (!mine()) return;
      this.found = found;
      this.crossing = found.crossing_deg;
      this.lay = found.lay_deg === null ? null : Math.round(found.lay_deg > 90 ? found.lay_deg - 180 : found.lay_deg);
    });
  }

  private look() {
    const { across, along, lay, crossing, wide } = this;
    return this.waiting(async (mine) => {
      if (!across || !along || lay === null) return;
      const stated = { across_mm: wide, lay_deg: lay, crossing_deg: crossing };
      const answer = await this.eye.look(across, along, stated, (share) => mine() && (this.share = share));
      if (mine()) this.answer = answer;
    });
  }

  private async waiting(act: (mine: () => boolean) => Promise<void>) {
    const turn = ++this.turn;
    const mine = () => turn === this.turn;
    this.trouble = '';
    this.share = 0;
    try {
      await act(mine);
    } catch (problem) {
      if (mine()) this.trouble = (problem as Error).message;
    } finally {
      if (mine()) this.share = null;
    }
  }
}
