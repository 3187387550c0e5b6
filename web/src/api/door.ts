/** The one door to the server. Faults come back as a Problem that names the key and the mend. */
import createClient from 'openapi-fetch';
import { shown } from '../units/shown.svelte';
import { letIn } from './let-in.svelte';
import type { paths } from './schema';
import type { Fault } from './types';

export class Problem extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly faults: Fault[] = [],
  ) {
    super(message);
  }
}

/** What is wrong, for a person who sees fields and no keys. */
function inWords(faults: Fault[]): string {
  return faults
    .map((fault) => {
      const place = fault.where && fault.where[0]?.toUpperCase() + fault.where.slice(1);
      return [place, shown.tell(fault.said)].filter(Boolean).join(': ');
    })
    .join('; ');
}

export const client = createClient<paths>({ baseUrl: '' });

interface Answer {
  data?: unknown;
  error?: unknown;
  response: Response;
}

// The client's own inference widens tuples to arrays, so the answer's type is named at each call.
export async function answered<T>(asked: Promise<Answer>): Promise<T> {
  let answer: Answer;
  try {
    answer = await asked;
  } catch {
    throw new Problem(0, 'The program does not answer. What you see is kept here; is it still running?');
  }
  if (answer.response.ok) return answer.data as T;
  if (answer.response.status === 401) letIn.out = true;
  const told = answer.error as { detail?: string; faults?: Fault[] } | undefined;
  const faults = told?.faults ?? [];
  throw new Problem(answer.response.status, inWords(faults) || told?.detail || answer.response.statusText, faults);
}

/** A body that goes out as it is: a file, or text that the server reads itself. */
export const asItIs = (body: Blob | string, type: string) => ({
  body: body as never,
  bodySerializer: (given: unknown) => given as Blob | string,
  headers: { 'Content-Type': type },
});

/** Out of reach of the radio nothing fails by itself: what takes this long is taken for no answer. */
export const soon = () => AbortSignal.timeout(8000);
