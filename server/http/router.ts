import type { Schema } from 'yup';
import type { AnswerOf, BodyOf, ParamsOf, QueryOf, Route } from '@unto/contract';
import type { Context } from '../db/context.js';
import type { FileAnswer } from './file-answer.js';
import type { JsonText } from './json-text.js';

/** What an operation is given besides its context: everything checked against its route. */
export interface Call<R extends Route> {
  readonly params: ParamsOf<R>;
  readonly body: R['takesFile'] extends number ? Buffer : BodyOf<R>;
  readonly query: QueryOf<R>;
}

export type Handler<R extends Route> = (
  context: Context,
  call: Call<R>,
) => Promise<R['answer'] extends Schema ? AnswerOf<R> | JsonText<AnswerOf<R>> : FileAnswer>;

/** A route with what answers it. */
export interface Mounted {
  readonly name: string;
  readonly route: Route;
  readonly answer: (context: Context, call: Call<Route>) => Promise<unknown>;
}

/** Implements the routes of a resource, every one of them and no others. */
export function router<Routes extends Readonly<Record<string, Route>>>(
  routes: Routes,
  handlers: { readonly [Name in keyof Routes]: Handler<Routes[Name]> },
): Mounted[] {
  return Object.entries(routes).map(([name, route]) => ({
    name,
    route,
    answer: handlers[name as keyof Routes] as Mounted['answer'],
  }));
}
