import { api, Problem, type KeptSizing, type Place, type SizeFile, type SizeReading } from '../../api/client';
import { notices } from '../../ui/notices.svelte';

type Round = SizeFile['rounds'][number];

/** The temperature at which a size is meant, where nothing else is said (ISO 1). */
export const REFERENCE_C = 20;

/** One part at the gauge: every reading and every working is kept before the next is asked for. */
export class Gauging {
  kept = $state.raw<KeptSizing | null>(null);
  missing = $state(false);
  /** Where to read, and how many of them are read; null when the next move is shown. */
  todo = $state.raw<Place[] | null>(null);
  done = $state(0);
  /** When the work began, by the page's clock; null when nothing is worked. */
  began = $state<number | null>(null);
  /** How warm the part is, °C; null for as warm as the gauge. */
  at = $state<number | null>(null);
  private busy = false;

  constructor(readonly id: number) {}

  async load() {
    try {
      this.show(await api.sizing(this.id));
    } catch (problem) {
      if (problem instanceof Problem && problem.status === 404) this.missing = true;
      else notices.say((problem as Error).message, 'trouble');
    }
  }

  get place(): Place | null {
    return this.todo?.[this.done] ?? null;
  }

  get rounds(): Round[] {
    return this.kept?.size.rounds ?? [];
  }

  /** Rounds in which something was worked. */
  get worked(): number {
    return this.rounds.filter((round) => round.worked_s > 0).length;
  }

  start() {
    if (this.kept && !this.todo) this.began = performance.now();
  }

  /** The work stops: it is kept at once, and then the size is read. */
  async stop() {
    if (this.began === null || !this.kept) return;
    const seconds = Math.max(0.1, Math.round((performance.now() - this.began) / 100) / 10);
    const places = this.kept.places;
    if (await this.change([...this.rounds, { worked_s: seconds, ...this.tool, readings: [] }])) {
      this.began = null;
      this.read(places);
    }
  }

  /** To read at the places of the next move, without any work. */
  async readAgain() {
    if (!this.kept) return;
    const places = this.kept.places;
    const first = this.rounds.every((round) => !round.worked_s && round.readings.length === 0);
    if (first || (await this.change([...this.rounds, { worked_s: 0, ...this.tool, readings: [] }]))) this.read(places);
  }

  async take(mm: number) {
    const place = this.place;
    if (!place) return;
    const warm = this.at === null ? {} : { at_c: this.at };
    const reading: SizeReading = { z_mm: place.z_mm, phi_deg: place.phi_deg, mm, ...warm };
    const last = this.rounds.at(-1);
    if (!last) return;
    const gauge = this.at === null ? {} : { gauge_c: this.kept?.size.gauge_c ?? REFERENCE_C };
    const rounds = [...this.rounds.slice(0, -1), { ...last, readings: [...last.readings, reading] }];
    if (await this.change(rounds, gauge)) {
      this.done += 1;
      if (this.todo && this.done >= this.todo.length) this.todo = null;
    }
  }

  /** The newest reading is taken back, or the working that has none yet. */
  async undo() {
    const last = this.rounds.at(-1);
    if (!last) return;
    if (last.readings.length) {
      if (!(await this.change([...this.rounds.slice(0, -1), { ...last, readings: last.readings.slice(0, -1) }])))
        return;
      if (this.todo && this.done) this.done -= 1;
    } else if (this.rounds.length > 1 && (await this.change(this.rounds.slice(0, -1)))) this.todo = null;
  }

  /** The tool that is in hand where it is not the one that the part began with. */
  private get tool(): Pick<Round, 'lap' | 'turned_by'> {
    const last = this.rounds.at(-1);
    return { ...(last?.lap ? { lap: last.lap } : {}), ...(last?.turned_by ? { turned_by: last.turned_by } : {}) };
  }

  /** Grade of the lap in hand. */
  get grade(): string | undefined {
    return this.rounds.at(-1)?.lap?.grade ?? this.kept?.size.lap?.grade;
  }

  /** The finishing lap, or cloth after the file, is taken in hand; what is worked from now on is worked with it. */
  async takeFiner() {
    const finer = this.kept?.answer?.stop_sheet.at(-1)?.grade;
    if (!this.kept || !finer) return;
    const tool: Partial<Round> = this.kept.size.lap ? { lap: { grade: finer } } : { turned_by: 'cloth' };
    await this.change([...this.rounds, { worked_s: 0, readings: [], ...tool }]);
  }

  /** How warm the gauge is, °C. */
  async gaugeAt(celsius: number) {
    if (this.kept) await this.change(this.rounds, { gauge_c: celsius });
  }

  enough() {
    if (this.rounds.at(-1)?.readings.length) this.todo = null;
  }

  private read(places: Place[]) {
    this.todo = places;
    this.done = 0;
  }

  private show(kept: KeptSizing) {
    this.kept = kept;
    // A round without readings, after a reload say, is read before anything else.
    const last = kept.size.rounds.at(-1);
    const unread = last?.readings.length === 0 && (last.worked_s ?? 0) > 0;
    if (!this.todo && (unread || kept.answer === null)) this.read(kept.places);
  }

  private async change(rounds: Round[], more: Partial<SizeFile> = {}): Promise<boolean> {
    if (!this.kept || this.busy) return false;
    this.busy = true;
    try {
      this.show(await api.changeSizing(this.id, { ...this.kept.size, ...more, rounds }, this.kept.revision));
      return true;
    } catch (problem) {
      notices.say((problem as Error).message, 'trouble');
      if (problem instanceof Problem && problem.status === 412) await this.load();
      return false;
    } finally {
      this.busy = false;
    }
  }
}
