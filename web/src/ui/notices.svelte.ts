export interface Notice {
  id: number;
  text: string;
  kind: 'done' | 'trouble';
  action?: { label: string; run: () => void };
}

/** Short words at the foot of the screen. Troubles stay until they are put away. */
class Notices {
  list = $state<Notice[]>([]);
  private next = 1;

  say(text: string, kind: Notice['kind'] = 'done', action?: Notice['action']) {
    const notice = { id: this.next++, text, kind, action };
    this.list.push(notice);
    if (kind === 'done') this.later(notice.id, action ? 12_000 : 5_000);
  }

  /** Away in a while; never from under the focus. */
  private later(id: number, ms: number) {
    setTimeout(() => {
      if (document.activeElement?.closest(`[data-notice="${id}"]`)) this.later(id, ms);
      else this.away(id);
    }, ms);
  }

  away(id: number) {
    this.list = this.list.filter((notice) => notice.id !== id);
  }
}

export const notices = new Notices();
