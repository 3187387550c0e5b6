/**
 * An answer that is waited for: the value, or what went wrong. Asked again, only the newest question counts: the one before is
 * cancelled where it can be, and its answer refused where it comes all the same.
 */
export class Answer<Value> {
  value = $state.raw<Value | null>(null);
  problem = $state.raw<Error | null>(null);
  private turn = 0;
  private waiting: { cancel?: () => void } | null = null;

  get trouble(): string | null {
    return this.problem?.message ?? null;
  }

  /** `keep`: show the old value until the new one is there. Returns how to stop waiting, which an effect does when it is over. */
  ask(asked: Promise<Value> & { cancel?: () => void }, keep = false): () => void {
    this.stop();
    const turn = this.turn;
    this.waiting = asked;
    if (!keep) this.value = null;
    this.problem = null;
    asked.then(
      (value) => {
        if (turn === this.turn) this.value = value;
      },
      (problem: Error) => {
        if (turn === this.turn) this.problem = problem;
      },
    );
    return () => {
      if (turn === this.turn) this.stop();
    };
  }

  /** What is still on its way is not wanted any more. */
  stop() {
    this.turn++;
    this.waiting?.cancel?.();
    this.waiting = null;
  }
}
