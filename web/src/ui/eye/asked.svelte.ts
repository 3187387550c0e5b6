import type { Sentence } from '../../units/sentence';

/** What the person says of two photos: how wide, how the new marks run (degrees, anticlockwise), how old ones cross them. */
export interface EyeStated {
  across_mm: number;
  lay_deg: number;
  crossing_deg: number;
}

export interface EyeTold {
  verdict: 'seen' | 'look-again' | 'none-seen' | 'refused';
  said: Sentence[];
  /** From and to, in widths of photo 1. */
  lines: [number, number, number, number][];
}

/** Has two photos looked at; `told` is called with the share that is done. */
export type AskEye = (along: Blob, across: Blob, stated: EyeStated, told: (share: number) => void) => Promise<EyeTold>;

/** The eye asked at a light check: two photos, the line along the new marks, and what was seen. */
export class AskedEye {
  along = $state.raw<Blob | null>(null);
  across = $state.raw<Blob | null>(null);
  /** Of the new marks on photo 1, degrees anticlockwise from the right; null until the person has turned the line. */
  lay = $state<number | null>(null);
  crossing = $state(70);
  wide = $state(35);
  share = $state<number | null>(null);
  answer = $state.raw<EyeTold | null>(null);
  trouble = $state('');
  private turn = 0;

  /** The photo that is to be taken next. */
  get next(): 'along' | 'across' | null {
    return this.along ? (this.across ? null : 'across') : 'along';
  }

  take(photo: Blob) {
    if (this.next === 'along') this.along = photo;
    else this.across = photo;
  }

  again() {
    this.turn++;
    this.along = this.across = this.answer = this.share = null;
    this.trouble = '';
  }

  async ask(eye: AskEye) {
    const { along, across, lay, crossing, wide } = this;
    if (!along || !across || lay === null) return;
    const turn = ++this.turn;
    this.answer = null;
    this.trouble = '';
    this.share = 0;
    const stated = { across_mm: wide, lay_deg: lay, crossing_deg: crossing };
    try {
      const answer = await eye(along, across, stated, (share) => turn === this.turn && (this.share = share));
      if (turn === this.turn) this.answer = answer;
    } catch (problem) {
      if (turn === this.turn) this.trouble = (problem as Error).message;
    } finally {
      if (turn === this.turn) this.share = null;
    }
  }
}
