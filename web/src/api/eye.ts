/** The eye on the server: photos are handed over, and it is asked how far it is until it has seen. */
import { api, type EyeAnswer, type EyeStated } from './client';

const ASK_MS = 400;

type Begin = (along: Blob, across: Blob, stated: EyeStated) => Promise<{ look: number }>;
type Saw = (look: number, crossing_deg: number) => Promise<{ share: number; answer: EyeAnswer | null }>;

const looking =
  (begin: Begin, saw: Saw) =>
  async (along: Blob, across: Blob, stated: EyeStated, told: (share: number) => void): Promise<EyeAnswer> => {
    const { look } = await begin(along, across, stated);
    for (;;) {
      const { share, answer } = await saw(look, stated.crossing_deg);
      told(share);
      if (answer) return answer;
      await new Promise((wait) => setTimeout(wait, ASK_MS));
    }
  };

/** At the light check of the step in hand. */
export const eyeAtBench = (run: number) =>
  looking(
    (along, across, stated) => api.askEye(run, along, across, stated),
    (look, crossing) => api.eyeSaw(run, look, crossing),
  );

/** Of any face: the grade that was worked before is said by the person. */
export const eyeAnywhere = (before: () => string) =>
  looking(
    (along, across, stated) => api.askEyeAnywhere(along, across, { ...stated, before: before() }),
    (look, crossing) => api.eyeSawAnywhere(look, crossing),
  );
