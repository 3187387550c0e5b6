/** How the program is, asked again and again: what is wrong, and whether it was updated since this screen was loaded. */
import { api, type Health } from '../api/client';

const EVERY_MS = 15_000;

class ProgramHealth {
  troubles = $state.raw<Health['troubles']>([]);
  /** The program serves other screens than this one by now. */
  updated = $state(false);
  /** A part of the screens could not be loaded. */
  broken = $state(false);

  /** Ask from now on; returns what ends it. */
  follow(): () => void {
    void this.look();
    const again = setInterval(() => void this.look(), EVERY_MS);
    return () => clearInterval(again);
  }

  async look() {
    try {
      const told = await api.health();
      this.troubles = told.troubles;
      if (told.build && told.build !== __BUILD__) this.updated = true;
    } catch {
      // Nobody answers: the pages themselves say so.
    }
  }
}

export const health = new ProgramHealth();
