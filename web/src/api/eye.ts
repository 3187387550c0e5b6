/** The eye on the server: photos are handed over, and it is asked how far it is until it has seen. */
import { api, type EyeAnswer, type EyeStated } from './client';

const ASK_MS = 400;

type Begin = (across: Blob, along: Blob, stated: EyeStated) => Promise<{ look: number }>;
type Saw = (look: number, crossing_deg: number) => Promise<{ share: number; answer: EyeAnswer | null }>;

const looking =
  (begin: Begin, saw: Saw) =>
  async (across: Blob, along: Blob, stated: EyeStated, told: (share: number) => void): Promise<EyeAnswer> => {
    const { look } = await begin(across, along, stated);
    for (;;) {
      const { share, answer } = await saw(look, stated.crossing_deg);
      told(share);
      if (answer) return answer;
      await new Promise((wait) => setTimeout(wait, ASK_MS));
    }
  };

/** At the light check of the step in hand. */
export const eyeAtBench = (run: number) => ({
  shows: (across_mm: number, pixels?: number) => api.eyeShows(run, across_mm, pixels),
  lay: api.eyeLay,
  look: looking(
    (across, along, stated) => api.askEye(run, across, along, stated),
    (look, crossing) => api.eyeSaw(run, look, crossing),
  ),
});

/** Of any face: the grade that was worked before is said by the person. */
export const eyeAnywhere = (before: () => string) => ({
  shows: (across_mm: number, pixels?: number) => api.eyeShowsAnywhere(across_mm, before(), pixels),
  lay: api.eyeLay,
  look: looking(
    (across, along, stated) => api.askEyeAnywhere(across, along, { ...stated, before: before() }),
    (look, crossing) => api.eyeSawAnywhere(look, crossing),
  ),
});
