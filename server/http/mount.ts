import express, { type Express, type Request, type Response } from 'express';
import type { Schema } from 'yup';
import { MAX_FILE_BYTES, ROUTES, type Route, type RouteName } from '@unto/contract';
import type { Context } from '../db/context.js';
import type { AppDeps } from '../deps.js';
import { Refusal } from './refusal.js';

/** What a handler is given besides its context: checked body and query, path parameters. */
export interface Call<B = unknown, Q = unknown> {
  readonly params: Readonly<Record<string, string>>;
  readonly body: B;
  readonly query: Q;
}

/** A file as it was kept. */
export class FileAnswer {
  constructor(
    readonly name: string,
    readonly mediaType: string,
    readonly content: Buffer,
  ) {}
}

// Each handler names the body and query its route checked; the registry itself cannot know them all.
// eslint-disable-next-line @typescript-eslint/no-explicit-any
export type Handler = (context: Context, call: Call<any, any>) => Promise<unknown>;
export type Handlers = Record<RouteName, Handler>;

/** Mounts every route of the contract with its handler; writes run in one transaction and name their operator. */
export function mount(app: Express, deps: AppDeps, handlers: Handlers): void {
  for (const [name, route] of Object.entries(ROUTES) as [RouteName, Route][]) {
    const body = route.takesFile ? [express.raw({ type: () => true, limit: MAX_FILE_BYTES })] : [];
    app[route.method](route.path, ...body, async (request: Request, response: Response) => {
      const call = {
        params: request.params as Record<string, string>,
        body: route.takesFile ? fileOf(request) : await check(route.body, request.body, { strict: true }),
        query: await check(route.query, request.query, { strict: false }),
      } as Call;
      const answer = await perform(deps, route, request, (context) => handlers[name](context, call));
      send(response, route, answer);
    });
  }
}

function fileOf(request: Request): Buffer {
  if (!Buffer.isBuffer(request.body) || request.body.length === 0)
    throw new Refusal('wrong-file', 'The file is empty. Nothing was kept.');
  return request.body;
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
  const base = {
    sequelize: deps.sequelize,
    models: deps.models,
    files: deps.files,
    devices: deps.devices,
    now: deps.clock(),
  };
  if (route.method === 'get') return work({ ...base, transaction: undefined, actor: '' });
  const actor = request.get('x-unto-operator') ?? '';
  return deps.sequelize.transaction(async (transaction) => {
    const context = { ...base, transaction, actor };
    if (route.path !== ROUTES.createOperator.path) await requireOperator(context);
    return work(context);
  });
}

async function requireOperator(context: Context): Promise<void> {
  const known =
    /^[0-9a-f-]{36}$/.test(context.actor) &&
    (await context.models.operators.findByPk(context.actor, { transaction: context.transaction ?? null }));
  if (!known) throw new Refusal('operator-needed', 'Pick who is at the bench (top right), then enter it again.');
}

function send(response: Response, route: Route, answer: unknown): void {
  response.set('Cache-Control', 'no-store');
  if (answer instanceof FileAnswer) {
    // Never shown in the page's own context: what is in a file is its maker's, not ours.
    response.type(answer.mediaType).attachment(answer.name).send(answer.content);
  } else if (route.answers) response.type(route.answers).send(answer);
  else response.json(answer ?? {});
}
