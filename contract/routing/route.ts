import type { InferType, Schema } from 'yup';

/** Names of the parameters in a path: `'/api/runs/:id'` has `'id'`. */
export type ParamNames<Path extends string> = Path extends `${string}:${infer Name}/${infer Rest}`
  ? Name | ParamNames<`/${Rest}`>
  : Path extends `${string}:${infer Name}`
    ? Name
    : never;

/** What an operation answers where it is not JSON: its media type, and what a call gives. */
export interface FileAnswerSpec {
  readonly media: string;
}

/** A value as it is handed about: nothing in it is changed in place. */
export type Frozen<T> = T extends object ? { readonly [Key in keyof T]: Frozen<T[Key]> } : T;

/** Bytes of JSON that an operation takes: what people enter is small, and files go as files. */
export const BODY_BYTES = 1_000_000;

/** One operation of the API: the server mounts exactly what is declared so, the client calls it by name, OpenAPI lists it whole. */
export interface Route {
  readonly method: 'get' | 'post' | 'put';
  readonly path: string;
  readonly summary: string;
  readonly params: Readonly<Record<string, Schema<string>>>;
  readonly body?: Schema | undefined;
  readonly query?: Schema | undefined;
  readonly answer: Schema | FileAnswerSpec;
  /** Bytes of JSON that are taken, BODY_BYTES where it does not say. */
  readonly bodyBytes?: number | undefined;
  /** The body is a file as it is, not JSON, of so many bytes at the most. */
  readonly takesFile?: number | undefined;
  /** Its answer follows from more than what is kept: each call is worked out by itself. */
  readonly alive?: true | undefined;
  /** How long its answer holds while nothing is written, s: what follows from days holds longer than what follows from minutes. */
  readonly holdsS?: number | undefined;
  /** It works for a while or searches much: fewer of its calls are taken in a minute than of others. */
  readonly heavy?: true | undefined;
  /** It may be worked out for a while before it answers: whoever asks waits longer. */
  readonly patient?: true | undefined;
  /** Made before anybody can be named: the first operator. */
  readonly withoutOperator?: true | undefined;
}

/** Declares an operation; a path whose parameters have no schema does not compile. */
export function route<const Spec extends Route>(
  spec: Spec & { readonly params: { readonly [Name in ParamNames<Spec['path']>]: Schema<string> } },
): Spec {
  return spec;
}

export type ParamsOf<R extends Route> = { readonly [Name in ParamNames<R['path']>]: string };
export type BodyOf<R extends Route> = R['body'] extends Schema ? Frozen<InferType<R['body']>> : undefined;
export type QueryOf<R extends Route> = R['query'] extends Schema ? Frozen<InferType<R['query']>> : undefined;
/** What a call gives: the record, or the file as bytes. */
export type AnswerOf<R extends Route> = R['answer'] extends Schema ? Frozen<InferType<R['answer']>> : Uint8Array;

export function isFileAnswer(answer: Route['answer']): answer is FileAnswerSpec {
  return 'media' in answer;
}

/** The address of an operation with its parameters and query filled in. */
export function addressOf(
  { path }: Pick<Route, 'path'>,
  params: Readonly<Record<string, string>> = {},
  query: Readonly<Record<string, unknown>> = {},
): string {
  const filled = path.replace(/:(\w+)/g, (_, name: string) => encodeURIComponent(params[name] ?? ''));
  const asked = Object.entries(query).filter(([, value]) => value !== undefined && value !== null && value !== '');
  const text = new URLSearchParams(asked.map(([key, value]): [string, string] => [key, String(value)])).toString();
  return text ? `${filled}?${text}` : filled;
}
