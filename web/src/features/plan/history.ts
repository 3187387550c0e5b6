/** What can be undone: values as they were, with changes that follow each other quickly taken as one. */
export class History<Value> {
  private past: Value[] = [];
  private future: Value[] = [];
  private changedAt = -Infinity;

  constructor(
    /** Changes closer than this (ms) are one: typing a number is one change, not three. */
    private readonly together = 800,
    private readonly most = 200,
  ) {}

  get canUndo(): boolean {
    return this.past.length > 0;
  }

  get canRedo(): boolean {
    return this.future.length > 0;
  }

  /** Call on every change with the value before it and the time (ms). */
  record(before: Value, now: number) {
    if (now - this.changedAt >= this.together) {
      this.past.push(before);
      if (this.past.length > this.most) this.past.shift();
    }
    this.changedAt = now;
    this.future = [];
  }

  /** The value before the last change, or undefined when there is none. */
  undo(current: Value): Value | undefined {
    return this.step(this.past, this.future, current);
  }

  redo(current: Value): Value | undefined {
    return this.step(this.future, this.past, current);
  }

  private step(from: Value[], to: Value[], current: Value): Value | undefined {
    const found = from.pop();
    if (found === undefined) return undefined;
    to.push(current);
    this.changedAt = -Infinity;
    return found;
  }
}
