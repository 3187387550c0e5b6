import { api, type EyeAnswer } from '../../api/client';

const ASK_MS = 400;

/** The eye asked at a light check: two photos, the line along the new marks, and what was seen. */
export class AskedEye {
  along = $state.raw<Blob | null>(null);
  across = $state.raw<Blob | null>(null);
  /** Of the new marks on photo 1, degrees anticlockwise from the right; null until the person has turned the line. */
  lay = $state<number | null>(null);
  crossing = $state(70);
  wide = $state(35);
  share = $state<number | null>(null);
  answer = $state.raw<EyeAnswer | null>(null);
  trouble = $state('');
  private turn = 0;

  constructor(private readonly run: number) {}

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

  async ask() {
    const { along, across, lay } = this;
    if (!along || !across || lay === null) return;
    const turn = ++this.turn;
    this.answer = null;
    this.trouble = '';
    this.share = 0;
    try {
      const { look } = await api.askEye(this.run, along, across, {
        across_mm: this.wide,
        lay_deg: lay,
        crossing_deg: this.crossing,
      });
      while (turn === this.turn) {
        const told = await api.eyeSaw(this.run, look, this.crossing);
        if (turn !== this.turn) return;
        this.share = told.share;
        if (told.answer) {
          this.answer = told.answer;
          this.share = null;
          return;
        }
        await new Promise((wait) => setTimeout(wait, ASK_MS));
      }
    } catch (problem) {
      if (turn !== this.turn) return;
      this.trouble = (problem as Error).message;
      this.share = null;
    }
  }
}
