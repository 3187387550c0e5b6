/** An answer that is waited for: the value, or what went wrong. Asked again, only the newest question counts. */
export class Answer<Value> {
  value = $state.raw<Value | null>(null);
  trouble = $state<string | null>(null);
  private turn = 0;

  /** `keep`: show the old value until the new one is there. */
  ask(asked: Promise<Value>, keep = false) {
    const turn = ++this.turn;
    if (!keep) this.value = null;
    this.trouble = null;
    asked.then(
      (value) => {
        if (turn === this.turn) this.value = value;
      },
      (problem: Error) => {
        if (turn === this.turn) this.trouble = problem.message;
      },
    );
  }
}
