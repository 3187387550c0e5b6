/** The one door to the server. What an address answers is inferred from its description; faults come back as a Problem that names the key and the mend. */
import createClient, { type FetchOptions } from 'openapi-fetch';
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

type Method = 'get' | 'post' | 'put' | 'delete';
/** The addresses that know a method. */
type Address<M extends Method> = {
  [P in keyof paths]: paths[P] extends Record<M, object> ? P : never;
}[keyof paths];
type Good = 200 | 201 | 202 | 204;
type ContentOf<Response> = Response extends { content: infer Content }
  ? Exclude<keyof Content, 'application/json'> extends never
    ? Content[keyof Content]
    : ArrayBuffer
  : undefined;
/** What an operation answers, by its description. Read from there and not from the library's own types: those make arrays of tuples. */
export type AnswerOf<Operation> = Operation extends { responses: infer Responses }
  ? { [Status in keyof Responses]: Status extends Good ? ContentOf<Responses[Status]> : never }[keyof Responses]
  : never;
// What must be given is asked for, what need not be may be left out whole.
type Init<Operation> = object extends FetchOptions<Operation> ? [FetchOptions<Operation>?] : [FetchOptions<Operation>];
/** An answer on its way, which one may stop waiting for. */
export type Asked<Value> = Promise<Value> & { cancel?: () => void };

const client = createClient<paths>({ baseUrl: '' });

function asking<M extends Method>(method: M) {
  return <P extends Address<M>>(address: P, ...[init]: Init<paths[P][M]>): Asked<AnswerOf<paths[P][M]>> => {
    const stop = new AbortController();
    const signal = init?.signal ? AbortSignal.any([init.signal, stop.signal]) : stop.signal;
    // The library's parameters cannot be written for a method that is a variable.
    const ask = client.request as unknown as (method: M, address: P, init: object) => Promise<Told>;
    const answer = answered(ask(method, address, { ...init, signal })) as Promise<AnswerOf<paths[P][M]>>;
    return Object.assign(answer, { cancel: () => stop.abort() });
  };
}
export const get = asking('get');
export const post = asking('post');
export const put = asking('put');
export const del = asking('delete');

/** What is wrong, for a person who sees fields and no keys. */
function inWords(faults: Fault[]): string {
  return faults
    .map((fault) => {
      const place = fault.where && fault.where[0]?.toUpperCase() + fault.where.slice(1);
      return [place, shown.tell(fault.said)].filter(Boolean).join(': ');
    })
    .join('; ');
}

interface Told {
  data?: unknown;
  error?: unknown;
  response: Response;
}

async function answered(asked: Promise<Told>): Promise<unknown> {
  let told: Told;
  try {
    told = await asked;
  } catch {
    throw new Problem(0, 'The program does not answer. What you see stays here; is it still running?');
  }
  if (told.response.ok) return told.data;
  if (told.response.status === 401) letIn.out = true;
  const error = told.error as { detail?: string; faults?: Fault[] } | undefined;
  const faults = error?.faults ?? [];
  throw new Problem(told.response.status, inWords(faults) || error?.detail || told.response.statusText, faults);
}

/** A body that goes out as it is: a file, or text that the server reads itself. */
export const asItIs = (body: Blob | string, type: string) => ({
  body: body as never,
  bodySerializer: (given: unknown) => given as Blob | string,
  headers: { 'Content-Type': type },
});

/** Out of reach of the radio nothing fails by itself: what takes this long is taken for no answer. */
export const soon = () => AbortSignal.timeout(8000);
