/** What is wished of a route, as it stands in the job: nothing at all where nothing is wished. Pure. */
import type { Wish } from '../../api/client';

export function tidied(wish: Partial<Wish> | undefined): Wish | undefined {
  const { start, lock = [], leave_out = [], route = [] } = wish ?? {};
  const empty = !start && !lock.length && !leave_out.length && !route.length;
  return empty ? undefined : { start, lock, leave_out, route };
}

/** Lock a tool into the route, or let it go again. A route set out step by step becomes its locks. */
export function lockTurned(wish: Wish | undefined, tool: string): Wish | undefined {
  const lock = wish?.lock ?? [];
  const next = lock.includes(tool) ? lock.filter((one) => one !== tool) : [...lock, tool];
  return tidied({ ...wish, lock: next, route: [] });
}
