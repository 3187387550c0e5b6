/** What somebody types and has not saved yet: it is there again after a reload of this tab, and gone once it was saved. */
export class DraftText {
  private text = $state('');

  constructor(private readonly key: string) {
    this.text = sessionStorage.getItem(key) ?? '';
  }

  get value(): string {
    return this.text;
  }

  set value(text: string) {
    this.text = text;
    if (text) sessionStorage.setItem(this.key, text);
    else sessionStorage.removeItem(this.key);
  }
}
