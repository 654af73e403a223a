import {
  addressOf,
  isFileAnswer,
  ROUTES,
  type AnswerOf,
  type BodyOf,
  type ParamNames,
  type ParamsOf,
  type Problem,
  type QueryOf,
  type Route,
  type RouteName,
  type Routes,
} from '@unto/contract';
import type { Schema } from 'yup';

/** A refusal of the server, with its problem document. */
export class ApiProblem extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }

  /** What is wrong where it is, else of the whole. */
  get first(): string {
    return this.problem.faults?.[0]?.message ?? this.problem.detail;
  }
}

/** The server or its database cannot be reached for the moment. */
export class Unreachable extends Error {}

/** Called with the server's clock at every answer. */
let heardTime: (server: string) => void = () => undefined;
export function onServerTime(listener: (server: string) => void): void {
  heardTime = listener;
}

/** Called whenever the server answered, or did not. */
let heardOf: (answers: boolean) => void = () => undefined;
export function onContact(listener: (answers: boolean) => void): void {
  heardOf = listener;
}

/** A request without an answer after this long counts as away. */
export const ANSWER_WITHIN_MS = 10_000;
/** Devices, files and fits may take their time. */
export const PATIENT_MS = 120_000;
/** Records of a list that are asked for at once. */
const MOST_AT_ONCE = 500;

/** What an operation is called with, as far as it takes any of it. */
type CallOfRoute<R extends Route> = ([ParamNames<R['path']>] extends [never]
  ? { readonly params?: undefined }
  : { readonly params: ParamsOf<R> }) &
  (R extends { readonly takesFile: number }
    ? { readonly body: Blob }
    : R extends { readonly body: Schema }
      ? { readonly body: BodyOf<R> }
      : { readonly body?: undefined }) & { readonly query?: QueryOf<R> };
type Calls = { readonly [N in RouteName]: CallOfRoute<Routes[N]> };
type Answers = { readonly [N in RouteName]: AnswerOf<Routes[N]> };
export type CallOf<N extends RouteName> = Calls[N];
export type Answer<N extends RouteName> = Answers[N];

/** Operations that answer a page of a list. */
type PagedName = {
  [N in RouteName]: Answers[N] extends { readonly records: readonly unknown[]; readonly next: string | null }
    ? N
    : never;
}[RouteName];
interface PageOf<N extends PagedName> {
  readonly records: readonly RecordOf<N>[];
  readonly next: string | null;
}
type RecordOf<N extends PagedName> = Answers[N] extends { readonly records: readonly (infer Item)[] } ? Item : never;

export const api = {
  /**
   * Calls an operation by its name; its answer is what the route says.
   * @throws ApiProblem when it was refused, Unreachable when nobody answered in time
   */
  async call<N extends RouteName>(name: N, call: CallOf<N>, how: CallOptions = {}): Promise<Answer<N>> {
    const route: Route = ROUTES[name];
    const response = await sent(addressOf(route, call.params, call.query ?? {}), initOf(route, call.body, how));
    return (
      isFileAnswer(route.answer) ? new Uint8Array(await response.arrayBuffer()) : await response.json()
    ) as Answer<N>;
  },

  /** Every record of a list, page after page. */
  async all<N extends PagedName>(name: N, query: NonNullable<CallOf<N>['query']>): Promise<RecordOf<N>[]> {
    const records: RecordOf<N>[] = [];
    let cursor: string | null = null;
    do {
      const asked = { ...query, limit: MOST_AT_ONCE, ...(cursor ? { cursor } : {}) };
      const page: PageOf<N> = (await api.call(name, { query: asked } as unknown as CallOf<N>)) as PageOf<N>;
      records.push(...page.records);
      cursor = page.next;
    } while (cursor);
    return records;
  },
};

export interface CallOptions {
  readonly operator?: string | undefined;
  readonly withinMs?: number | undefined;
}

function initOf(route: Route, body: unknown, { operator, withinMs = ANSWER_WITHIN_MS }: CallOptions): RequestInit {
  const type = route.takesFile ? 'application/octet-stream' : 'application/json';
  return {
    method: route.method.toUpperCase(),
    headers: {
      ...(body === undefined ? {} : { 'content-type': type }),
      ...(operator ? { 'x-unto-operator': operator } : {}),
    },
    ...(body === undefined ? {} : { body: route.takesFile ? (body as Blob) : JSON.stringify(body) }),
    signal: AbortSignal.timeout(withinMs),
  };
}

/** One request as it is. @throws as api.call */
export async function sent(address: string, init: RequestInit): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(address, init);
  } catch {
    heardOf(false);
    throw new Unreachable('The server does not answer.');
  }
  // A server whose database is away answers nothing that counts.
  heardOf(response.status !== 503);
  const time = response.headers.get('x-unto-time');
  if (time) heardTime(time);
  if (response.ok) return response;
  const problem = (await response.json().catch(() => null)) as Problem | null;
  if ([429, 503, 507].includes(response.status) || !problem)
    throw new Unreachable(problem?.detail ?? 'The server does not answer.');
  throw new ApiProblem(problem);
}
