import { api, type Job, type KeptJob, type PartDrawn, type PartPhoto } from '../../api/client';
import { newFaceId } from '../../api/face-id';
import type { Point } from '../../charts/overlay';
import { notices } from '../../ui/notices.svelte';
import { smaller } from '../../ui/smaller';
import { firstOfEach } from '../../ui/unique';

export type Tool = 'length' | 'rectangle' | 'outline' | 'mark' | 'anchors';
/** So many points end it by themselves; an outline and a stroke are ended by hand. */
const NEEDS: Partial<Record<Tool, number>> = { length: 2, rectangle: 4, anchors: 2 };

/** The name, with a number where another face is called so. */
function freeName(job: Job, name: string): string {
  const taken = job.faces.map((one) => one.name);
  for (let n = 1; ; n++) {
    const free = n === 1 ? name : `${name} ${n}`;
    if (!taken.includes(free)) return free;
  }
}

/** The photos of a job's part, the one in hand, and what is being drawn on it. Every change is kept at once. */
export class PartOnPhoto {
  kept = $state.raw<KeptJob | null>(null);
  photos = $state.raw<PartPhoto[]>([]);
  chosen = $state(0);
  tool = $state<Tool>('length');
  /** Points that were tapped and are not a whole thing yet. */
  points = $state.raw<Point[]>([]);
  /** The face to outline, by its id; empty for one that the job does not have yet. */
  face = $state('');
  damage = $state('scratches');
  trouble = $state<string | null>(null);
  busy = $state(false);
  private undone = $state.raw<PartDrawn[]>([]);

  constructor(readonly id: number) {}

  async load() {
    await this.tried(async () => {
      [this.kept, this.photos] = await Promise.all([api.job(this.id), api.partPhotos(this.id)]);
      this.face ||= this.kept.job.faces.find((one) => !one.edge)?.id ?? '';
      if (this.photo?.drawn.scale) this.tool = 'outline';
    });
  }

  get photo(): PartPhoto | undefined {
    return this.photos[this.chosen];
  }

  get canUndo(): boolean {
    return this.points.length > 0 || this.undone.length > 0;
  }

  /** The area that the outlines of a face have together; null before the scale is known or an outline is drawn. */
  areaOf(face: string): number | null {
    const photo = this.photo;
    const all = (photo?.drawn.outlines ?? []).map((one, at) => ({ face: one.face, area: photo?.areas[at] ?? null }));
    const mine = all.filter((one) => one.face === face);
    if (!mine.length || mine.some((one) => one.area === null)) return null;
    return mine.reduce((sum, one) => sum + one.area!, 0);
  }

  async add(file: Blob, shows: PartPhoto['shows']) {
    await this.tried(async () => {
      const photo = await api.addPartPhoto(this.id, await smaller(file), shows);
      this.photos = [...this.photos, photo];
      this.choose(this.photos.length - 1);
    });
  }

  choose(at: number) {
    this.chosen = at;
    this.points = [];
    this.undone = [];
    this.tool = this.photo?.drawn.scale ? 'outline' : 'length';
  }

  take(tool: Tool) {
    this.tool = tool;
    this.points = [];
  }

  /** A point was tapped, in pixels of the picture. */
  async tap(point: Point) {
    this.points = [...this.points, point];
    if (this.points.length === NEEDS[this.tool]) await this.finish();
  }

  get canFinish(): boolean {
    return this.tool === 'outline' ? this.points.length >= 3 : this.tool === 'mark' && this.points.length >= 1;
  }

  /** What was tapped becomes a whole thing. */
  async finish() {
    const { tool, points, damage } = this;
    const face = tool === 'outline' ? this.outlined() : '';
    const { name, keep_off } = this.known(face) ?? {
      name: this.nameOfNew(face),
      keep_off: false,
      stays_flat: false,
      blind: false,
    };
    const whole: Record<Tool, (drawn: PartDrawn) => PartDrawn> = {
      length: (drawn) => ({ ...drawn, scale: { kind: 'length', ends: points, mm: this.lengthMm } }),
      rectangle: (drawn) => ({
        ...drawn,
        scale: { kind: 'rectangle', corners: points, width_mm: this.widthMm, height_mm: this.heightMm },
      }),
      outline: (drawn) => ({
        ...drawn,
        outlines: [...(drawn.outlines ?? []), { face, name, points, curved: 1, keep_off }],
      }),
      mark: (drawn) => ({ ...drawn, marks: [...(drawn.marks ?? []), { damage, points }] }),
      anchors: (drawn) => ({ ...drawn, anchors: points }),
    };
    this.points = [];
    const done = await this.draw(whole[tool]);
    if (done && (tool === 'length' || tool === 'rectangle')) this.tool = 'outline';
  }

  lengthMm = $state(100);
  widthMm = $state(210);
  heightMm = $state(297);

  private known(face: string) {
    return this.kept?.job.faces.find((one) => one.id === face);
  }

  private nameOfNew(face: string): string {
    const faces = (this.kept?.job.faces ?? []).filter((one) => !one.edge).length;
    const drawn = this.drawnOnly;
    return drawn.find((one) => one.id === face)?.label ?? `face ${faces + drawn.length + 1}`;
  }

  /** Faces that are drawn on a photo and are none of the job's yet. */
  get drawnOnly(): { id: string; label: string }[] {
    const drawn = this.photos.flatMap((one) => one.drawn.outlines ?? []).filter((one) => !this.known(one.face));
    return firstOfEach(drawn, (one) => one.face).map((one) => ({ id: one.face, label: one.name || one.face }));
  }

  /** The id of the face that is outlined now; a new one gets its own. */
  private outlined(): string {
    this.face ||= newFaceId();
    return this.face;
  }

  /** Change what is drawn; what cannot be says why, and what was there before stays. */
  draw(change: (drawn: PartDrawn) => PartDrawn, undoable = true): Promise<boolean> {
    const id = this.photo?.id;
    return this.tried(async () => {
      const photo = this.photos.find((one) => one.id === id);
      if (!photo) return;
      const now = await api.drawOnPhoto(photo.id, change(photo.drawn));
      if (undoable) this.undone = [...this.undone, photo.drawn];
      this.photos = this.photos.map((one) => (one.id === now.id ? now : one));
    });
  }

  takeOut(list: 'outlines' | 'marks', at: number) {
    return this.draw((drawn) => ({ ...drawn, [list]: drawn[list]?.filter((_, place) => place !== at) }));
  }

  async undo() {
    if (this.points.length) {
      this.points = this.points.slice(0, -1);
      return;
    }
    const before = this.undone.at(-1);
    this.undone = this.undone.slice(0, -1);
    if (before) await this.draw(() => before, false);
  }

  /** The areas of the outlines become those of the faces; a face that the job does not know yet becomes a new one. */
  async useAreas() {
    const drawn = firstOfEach(this.photo?.drawn.outlines ?? [], (one) => one.face);
    await this.tried(async () => {
      const kept = await api.job(this.id);
      const job = structuredClone(kept.job) as Job;
      const like = job.faces.find((one) => !one.edge);
      for (const { face, name } of drawn) {
        const area = this.areaOf(face);
        if (area === null) continue;
        const found = job.faces.find((one) => one.id === face);
        if (found) Object.assign(found, { area_cm2: area, shape: undefined });
        else if (like)
          job.faces.push({
            ...structuredClone(like),
            id: face,
            name: freeName(job, name || face),
            area_cm2: area,
            shape: undefined,
            keep_off: false,
            stays_flat: false,
            blind: false,
            fit: undefined,
          });
      }
      this.kept = await api.change(this.id, job, kept.revision);
      notices.say('The areas are those of the faces now.');
    });
  }

  async remove() {
    const photo = this.photo;
    if (!photo) return;
    await this.tried(async () => {
      await api.removePartPhoto(photo.id);
      this.photos = this.photos.filter((one) => one.id !== photo.id);
      this.choose(Math.max(0, this.chosen - 1));
    });
  }

  private turn: Promise<unknown> = Promise.resolve();
  private waiting = 0;

  /** One after the other: nothing that a quick hand does is lost. */
  private tried(act: () => Promise<void>): Promise<boolean> {
    this.waiting += 1;
    this.busy = true;
    const done = this.turn.then(async () => {
      try {
        await act();
        this.trouble = null;
        return true;
      } catch (problem) {
        this.trouble = (problem as Error).message;
        return false;
      } finally {
        this.waiting -= 1;
        this.busy = this.waiting > 0;
      }
    });
    this.turn = done;
    return done;
  }
}
