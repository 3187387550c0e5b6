const KEY = 'kelbrast.theme';
const BENCH_KEY = 'kelbrast.theme.bench';

/** Light or dark: the person's choice if there is one, else the system's; at the bench dark unless it is chosen otherwise. */
class Theme {
  private chosen = $state(this.start());
  private night = $state(localStorage.getItem(BENCH_KEY) !== 'light');
  private atBench = $state(false);

  constructor() {
    this.apply();
  }

  get dark(): boolean {
    return this.atBench ? this.night : this.chosen;
  }

  toggle() {
    if (this.atBench) this.night = !this.night;
    else this.chosen = !this.chosen;
    localStorage.setItem(this.atBench ? BENCH_KEY : KEY, this.dark ? 'dark' : 'light');
    this.apply();
  }

  /** The bench has a choice of its own: it is read from two metres. */
  bench(here: boolean) {
    this.atBench = here;
    this.apply();
  }

  private start(): boolean {
    const chosen = localStorage.getItem(KEY);
    return chosen ? chosen === 'dark' : matchMedia('(prefers-color-scheme: dark)').matches;
  }

  private apply() {
    const { dataset } = document.documentElement;
    dataset.mode = this.dark ? 'dark' : 'light';
    dataset.place = this.atBench ? 'bench' : 'desk';
  }
}

export const theme = new Theme();
