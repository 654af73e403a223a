import { Readable } from 'node:stream';
import express, { type Express, type Request, type RequestHandler, type Response } from 'express';
import { object, type Schema } from 'yup';
import { BODY_BYTES, tooManyIn, unfitIn, type Route } from '@unto/contract';
import { atomically, type Context } from '../db/context.js';
import { ApiError, fault } from '../errors/api-error.js';
import { contextOf, type AppDeps } from './deps.js';
import { FileAnswer } from './file-answer.js';
import type { Call, Mounted } from './router.js';

/** Mounts operations; writes run in one transaction and name their operator. */
export function mount(app: Express, deps: AppDeps, operations: readonly Mounted[]): void {
  for (const { route, answer } of operations) {
    app[route.method](route.path, ...bodyReader(route), async (request: Request, response: Response) => {
      const call = await checkedCall(route, request);
      send(response, await perform(deps, route, request, (context) => answer(context, call)));
    });
  }
}

function bodyReader({ takesFile, body, bodyBytes = BODY_BYTES }: Route): RequestHandler[] {
  if (takesFile) return [express.raw({ type: () => true, limit: takesFile })];
  return body ? [express.json({ limit: bodyBytes })] : [];
}

async function checkedCall(route: Route, request: Request): Promise<Call<Route>> {
  return {
    params: await checkedParams(route, request),
    body: route.takesFile ? fileOf(request) : await checkedBody(route, request),
    query: await check(route.query, request.query, { strict: false }),
  } as Call<Route>;
}

/** An identifier that is none names nothing. */
async function checkedParams(route: Route, request: Request): Promise<unknown> {
  try {
    return await object(route.params).validate(request.params, { strict: true });
  } catch {
    throw new ApiError('not-found', `Nothing is kept under ${Object.values(request.params).join(', ')}.`);
  }
}

function fileOf(request: Request): Buffer {
  if (!Buffer.isBuffer(request.body) || request.body.length === 0)
    throw new ApiError('wrong-file', 'The file is empty. Nothing was kept.');
  return request.body;
}

/** What costs nothing to see is refused before a schema looks at every entry. */
async function checkedBody({ body: schema }: Route, { body }: Request): Promise<unknown> {
  if (!schema) return undefined;
  if (typeof body !== 'object' || body === null)
    throw new ApiError('not-json', 'The request holds no JSON: send some, with Content-Type application/json.');
  const unfit = unfitIn(body) ?? tooManyIn(schema, body);
  if (unfit) throw fault(unfit.path, unfit.message);
  return check(schema, body, { strict: true });
}

async function check(schema: Schema | undefined, value: unknown, options: { strict: boolean }): Promise<unknown> {
  return schema ? await schema.validate(value, { ...options, abortEarly: false }) : undefined;
}

async function perform(
  deps: AppDeps,
  route: Route,
  request: Request,
  work: (context: Context) => Promise<unknown>,
): Promise<unknown> {
  if (route.method === 'get') return work(contextOf(deps, ''));
  return atomically(contextOf(deps, request.get('x-unto-operator') ?? ''), async (context) => {
    if (!route.withoutOperator) await requireOperator(context);
    return work(context);
  });
}

async function requireOperator(context: Context): Promise<void> {
  const known =
    /^[0-9a-f-]{36}$/.test(context.actor) &&
    (await context.models.operators.findByPk(context.actor, { transaction: context.transaction ?? null }));
  if (!known) throw new ApiError('operator-needed', 'Pick who is at the bench (top right), then enter it again.');
}

function send(response: Response, answer: unknown): void {
  const lasting = answer instanceof FileAnswer && answer.lasting;
  response.set('Cache-Control', lasting ? 'private, max-age=31536000, immutable' : 'no-store');
  if (answer instanceof FileAnswer) sendFile(response, answer);
  else response.json(answer ?? {});
}

function sendFile(response: Response, { name, mediaType, content }: FileAnswer): void {
  response.type(mediaType);
  // Never shown in the page's own context: what is in a file is its maker's, not ours.
  if (name !== null) response.attachment(name).type(mediaType);
  if (typeof content === 'string' || Buffer.isBuffer(content)) response.send(content);
  else
    Readable.from(content)
      .on('error', (error) => response.destroy(error))
      .pipe(response);
}
