import { api, type Face, type Job, type KeptJob, type PartDrawn, type PartPhoto, type Spots } from '../../api/client';
import { newFaceId } from '../../api/face-id';
import type { Point } from '../../charts/overlay';
import { notices } from '../../ui/notices.svelte';
import { smaller } from '../../ui/smaller';
import { firstOfEach } from '../../ui/unique';

export type Tool = 'length' | 'rectangle' | 'outline' | 'mark' | 'move' | 'anchors';
/** A point of something drawn. */
export interface Grip {
  list: 'outlines' | 'marks';
  at: number;
  point: number;
}
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

/** What is drawn with one of its points elsewhere. */
function movedTo(drawn: PartDrawn, grip: Grip, to: Point): PartDrawn {
  const moved = <One extends { points: Point[] }>(one: One): One => ({
    ...one,
    points: one.points.map((there, nth) => (nth === grip.point ? to : there)),
  });
  return grip.list === 'marks'
    ? { ...drawn, marks: drawn.marks?.map((one, at) => (at === grip.at ? moved(one) : one)) }
    : { ...drawn, outlines: drawn.outlines?.map((one, at) => (at === grip.at ? moved(one) : one)) };
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
  /** Damage is drawn around as an outline, and not along as a stroke. */
  around = $state(false);
  /** Marks that are chosen together, by their places. */
  picked = $state.raw<number[]>([]);
  /** What a hand is moving, and where it is now. */
  moving = $state.raw<{ grip: Grip; to: Point } | null>(null);
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

  /** What is drawn on the photo in hand, with the point that is being moved where it is now. */
  get drawn(): PartDrawn {
    const drawn = this.photo?.drawn ?? { outlines: [], marks: [], anchors: [] };
    return this.moving ? movedTo(drawn, this.moving.grip, this.moving.to) : drawn;
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
    const least = this.tool === 'outline' || this.around ? 3 : 1;
    return (this.tool === 'outline' || this.tool === 'mark') && this.points.length >= least;
  }

  /** What was tapped becomes a whole thing. */
  async finish() {
    const { tool, points, damage, around } = this;
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
      mark: (drawn) => ({
        ...drawn,
        marks: [...(drawn.marks ?? []), { damage, points, closed: around, face: '', spots: '' }],
      }),
      move: (drawn) => drawn,
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
      this.kept = await api.job(this.id); // damage that is drawn is spots of the job
    });
  }

  /** The kinds of spots that are drawn on the photo in hand, each with its face and the places of its marks. */
  get kinds(): { spots: Spots; face: Face; marks: number[] }[] {
    const marks = this.photo?.drawn.marks ?? [];
    return (this.kept?.job.faces ?? []).flatMap((face) =>
      (face.spots ?? []).flatMap((spots) => {
        const mine = marks.flatMap((mark, at) => (mark.face === face.id && mark.spots === spots.id ? [at] : []));
        return mine.length ? [{ spots, face, marks: mine }] : [];
      }),
    );
  }

  pick(at: number, picked: boolean) {
    this.picked = picked ? [...this.picked, at] : this.picked.filter((one) => one !== at);
  }

  /** The chosen marks become of this kind; of a new one where it is empty. */
  async putInto(face: string, spots: string) {
    const { picked } = this;
    this.picked = [];
    const key = spots || newFaceId();
    await this.draw((drawn) => ({
      ...drawn,
      marks: drawn.marks?.map((mark, at) => (picked.includes(at) ? { ...mark, face, spots: key } : mark)),
    }));
  }

  async takeOutPicked() {
    const { picked } = this;
    this.picked = [];
    await this.draw((drawn) => ({ ...drawn, marks: drawn.marks?.filter((_, at) => !picked.includes(at)) }));
  }

  /** Change what is said of a kind of spots: its name, its depth. */
  changeSpots(face: string, spots: string, change: Partial<Spots>) {
    return this.tried(async () => {
      const kept = await api.job(this.id);
      const job = structuredClone(kept.job) as Job;
      const found = job.faces.find((one) => one.id === face)?.spots?.find((one) => one.id === spots);
      if (!found) return;
      Object.assign(found, change);
      this.kept = await api.change(this.id, job, kept.revision);
    });
  }

  /** The point nearest to a place of the picture, no farther than so many pixels. */
  gripAt(point: Point, within: number): Grip | null {
    const grips = (['marks', 'outlines'] as const).flatMap((list) =>
      (this.photo?.drawn[list] ?? []).flatMap((one, at) =>
        one.points.map((there, nth) => ({
          grip: { list, at, point: nth },
          far: Math.hypot(there[0] - point[0], there[1] - point[1]),
        })),
      ),
    );
    const nearest = grips.sort((a, b) => a.far - b.far)[0];
    return nearest && nearest.far <= within ? nearest.grip : null;
  }

  /** The hand lets go: the point is where it was moved to. */
  async letGo() {
    const { moving } = this;
    if (!moving) return;
    await this.draw((drawn) => movedTo(drawn, moving.grip, moving.to));
    this.moving = null;
  }

  takeOut(list: 'outlines' | 'marks', at: number) {
    this.picked = [];
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
