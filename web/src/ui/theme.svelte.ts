const KEY = 'kelbrast.theme';

/** Light or dark: the person's choice if there is one, else the system's. */
class Theme {
  dark = $state(this.start());

  constructor() {
    this.apply();
  }

  toggle() {
    this.dark = !this.dark;
    localStorage.setItem(KEY, this.dark ? 'dark' : 'light');
    this.apply();
  }

  private start(): boolean {
    const chosen = localStorage.getItem(KEY);
    return chosen ? chosen === 'dark' : matchMedia('(prefers-color-scheme: dark)').matches;
  }

  private apply() {
    document.documentElement.dataset.mode = this.dark ? 'dark' : 'light';
  }
}

export const theme = new Theme();
