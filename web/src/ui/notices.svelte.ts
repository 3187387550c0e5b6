export interface Notice {
  text: string;
  kind: 'done' | 'trouble';
  action?: { label: string; run: () => void };
}

/** Short words at the foot of the screen. Troubles stay until they are put away. */
class Notices {
  /** Said, but not shown yet: what shows them is loaded with the first. */
  waiting = $state.raw<Notice[]>([]);

  say(text: string, kind: Notice['kind'] = 'done', action?: Notice['action']) {
    this.waiting = [...this.waiting, { text, kind, action }];
  }

  take(): Notice[] {
    const taken = this.waiting;
    if (taken.length) this.waiting = [];
    return taken;
  }
}

export const notices = new Notices();
