import express, { type Express, type NextFunction, type Request, type Response } from 'express';
import type { AppDeps } from './http/deps.js';
import { guard } from './http/guard.js';
import { serveClient } from './http/client.js';
import { mount } from './http/mount.js';
import { shield } from './http/shield.js';
import { ROUTERS } from './routers.js';
import { problem, problemOf, ApiError } from './errors/api-error.js';

/** Builds the application; opens no port. */
export function createApp(deps: AppDeps): Express {
  const app = express();
  shield(app, deps.log, deps.callsPerMinute);
  app.use((_request, response, next) => {
    response.set('X-Unto-Time', deps.clock().toISOString());
    next();
  });
  app.use(guard(deps.hosts));
  mount(app, deps, ROUTERS);
  app.use('/api', (request) => {
    throw new ApiError('not-found', `There is nothing at ${request.originalUrl}.`);
  });
  if (deps.clientFolder) serveClient(app, deps.clientFolder);
  app.use((error: unknown, request: Request, response: Response, next: NextFunction) => {
    if (response.headersSent) return next(error);
    answerError(error, request, response);
  });
  return app;
}

function answerError(error: unknown, request: Request, response: Response): void {
  const known = problemOf(error);
  const incident = String(request.id);
  if (!known) request.log.error({ err: error, incident }, 'unforeseen');
  else if (known.status >= 500) request.log.warn({ err: error, incident }, known.type);
  const body =
    known ??
    problem('internal', `Nothing was kept. If it happens again, look for ${incident} in the log.`, { incident });
  response.status(body.status).type('application/problem+json').send(JSON.stringify(body));
}
