import { api, type Catalogue } from './client';

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
