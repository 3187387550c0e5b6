import { api, type Catalogue } from './client';

/** How the shop's own are called among what comes with the program. */
export const OURS = 'This shop’s own';
export const isOwn = (id: string) => id.startsWith('own-');

/** What there is to choose from; asked for once. */
class Choices {
  all = $state.raw<Catalogue | null>(null);
  private asked: Promise<void> | null = null;

  load(): Promise<void> {
    this.asked ??= api.catalogue().then(
      (catalogue) => {
        this.all = catalogue;
      },
      (problem: unknown) => {
        this.asked = null;
        throw problem;
      },
    );
    return this.asked;
  }

  /** After the shop described something of its own. */
  again(): Promise<void> {
    this.asked = null;
    return this.load();
  }

  /** What can be chosen of a kind that families divide, the shop's own first. */
  get materials(): { id: string; label: string; group: string }[] {
    const all = (this.all?.materials ?? []).map((one) => ({
      id: one.id,
      label: one.label,
      group: isOwn(one.id) ? OURS : this.familyLabel(one.family),
    }));
    return [...all.filter((one) => isOwn(one.id)), ...all.filter((one) => !isOwn(one.id))];
  }

  /** The grades of paper, as choices. */
  get papers(): { id: string; label: string }[] {
    const grades = this.all?.grades ?? [];
    return grades.filter((one) => one.grade.startsWith('P')).map((one) => ({ id: one.grade, label: one.grade }));
  }

  /** The grades of paper, and this one where it is none of them. */
  papersWith(grade: string | null | undefined): { id: string; label: string }[] {
    const { papers } = this;
    return grade && !papers.some((one) => one.id === grade) ? [...papers, { id: grade, label: grade }] : papers;
  }

  finish(id: string) {
    return this.all?.finishes.find((finish) => finish.id === id);
  }

  machine(id: string) {
    return this.all?.machines.find((machine) => machine.id === id);
  }

  material(id: string) {
    return this.all?.materials.find((material) => material.id === id);
  }

  /** The families of materials that may share a wheel, as choices. */
  get families(): { id: string; label: string }[] {
    return this.all?.families ?? [];
  }

  familyLabel(id: string): string {
    return id ? (this.families.find((one) => one.id === id)?.label ?? id) : 'Any metal';
  }
}

export const choices = new Choices();
