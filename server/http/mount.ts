import { Readable } from 'node:stream';
import express, { type Express, type Request, type RequestHandler, type Response } from 'express';
import { object, type Schema } from 'yup';
import { BODY_BYTES, isFileAnswer, tooManyIn, unfitIn, type Route } from '@unto/contract';
import { atomically, isId, type Context } from '../db/context.js';
import { editOnce } from '../db/edits.js';
import { ApiError, fault } from '../errors/api-error.js';
import { contextOf, type AppDeps } from './deps.js';
import type { FileAnswer } from './file-answer.js';
import type { Call, Mounted } from './router.js';
import { SharedAnswers, textOf } from './shared-answers.js';
import { CALLS_PER_MINUTE, limit } from './shield.js';

/** Mounts operations; writes run in one transaction and name their operator. */
export function mount(app: Express, deps: AppDeps, operations: readonly Mounted[]): void {
  const heavy = limit((deps.callsPerMinute ?? CALLS_PER_MINUTE).heavy, 'calls that take long');
  const shared = new SharedAnswers(deps.sequelize);
  for (const operation of operations) {
    const { route } = operation;
    const before = [...heavyLimit(route, heavy), ...bodyReader(route)];
    app[route.method](route.path, ...before, async (request: Request, response: Response) => {
      const call = await checkedCall(route, request);
      if (route.method === 'get') await read(deps, operation, shared, { request, response, call });
      else sendJson(response, textOf(await perform(deps, operation, request, call)));
    });
  }
}

async function read(
  deps: AppDeps,
  { route, answer }: Mounted,
  shared: SharedAnswers,
  { request, response, call }: { request: Request; response: Response; call: Call<Route> },
): Promise<void> {
  const work = () => answer(contextOf(deps, ''), call);
  if (isFileAnswer(route.answer)) return sendFile(response, (await work()) as FileAnswer);
  const asked = { key: request.originalUrl, now: deps.clock().getTime(), holdsS: route.holdsS };
  sendJson(response, route.alive ? textOf(await work()) : await shared.get(asked, work));
}

/** Files that are taken in, and what is made anew for each call; a kept file is only handed out. */
function heavyLimit({ heavy, takesFile, answer }: Route, handler: RequestHandler): RequestHandler[] {
  const made = isFileAnswer(answer) && answer.media !== 'application/octet-stream';
  return heavy || takesFile || made ? [handler] : [];
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
  { route, answer }: Mounted,
  request: Request,
  call: Call<Route>,
): Promise<unknown> {
  const asked = { ...contextOf(deps, request.get('x-unto-operator') ?? ''), agoMs: agoIn(request.get('x-unto-ago')) };
  return atomically(asked, async (context) => {
    if (!route.withoutOperator) await requireOperator(context);
    // What is created carries an id of its own.
    const edit = route.method === 'put' ? request.get('x-unto-request') : undefined;
    return editOnce(context, edit, { path: request.path, body: call.body ?? null }, () => answer(context, call));
  });
}

/** What waited in a browser says for how long; what says nothing, or nonsense, was entered now. */
function agoIn(said: string | undefined): number {
  const ms = Number(said ?? 0);
  return Number.isFinite(ms) ? Math.min(MOST_AGO_MS, Math.max(0, ms)) : 0;
}

const MOST_AGO_MS = 30 * 86_400_000;

async function requireOperator(context: Context): Promise<void> {
  const known =
    isId(context.actor) &&
    (await context.models.operators.findByPk(context.actor, { transaction: context.transaction ?? null }));
  if (!known || known.get('retired'))
    throw new ApiError('operator-needed', 'Pick who is at the bench (top right), then enter it again.');
}

function sendJson(response: Response, text: string): void {
  response.set('Cache-Control', 'no-store').type('application/json').send(text);
}

function sendFile(response: Response, { name, mediaType, content, lasting }: FileAnswer): void {
  // What comes in pieces goes as it is: it would be pressed together slower than it is made.
  const streamed = typeof content !== 'string' && !Buffer.isBuffer(content) ? ', no-transform' : '';
  response
    .set('Cache-Control', lasting ? 'private, max-age=31536000, immutable' : `no-store${streamed}`)
    .type(mediaType);
  // Never shown in the page's own context: what is in a file is its maker's, not ours.
  if (name !== null) response.attachment(name).type(mediaType);
  if (typeof content === 'string' || Buffer.isBuffer(content)) response.send(content);
  else
    Readable.from(content)
      .on('error', (error) => response.destroy(error))
      .pipe(response);
}
