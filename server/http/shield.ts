import type { Express, Request, RequestHandler, Response } from 'express';
import { randomBytes, randomUUID } from 'node:crypto';
import type { IncomingMessage, ServerResponse } from 'node:http';
import compression from 'compression';
import { rateLimit } from 'express-rate-limit';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { ApiError } from '../errors/api-error.js';

/** Calls that one address may make in a minute: far above what a bench with several screens asks, below what a loop gone wild does. */
export const CALLS_PER_MINUTE = 6000;

/** What stands before every request: its id and line in the log, its protecting headers, its limit, its answer made small. */
export function shield(app: Express, log: Logger, callsPerMinute = CALLS_PER_MINUTE): void {
  app.disable('x-powered-by');
  app.use(requestLog(log));
  app.use(withNonce, headers());
  app.use(compression());
  app.use('/api', limit(callsPerMinute));
}

/** Every request gets an id, which its answer carries and the log names. */
function requestLog(log: Logger): RequestHandler {
  return pinoHttp({
    logger: log,
    genReqId: (_request: IncomingMessage, response: ServerResponse) => {
      const id = randomUUID();
      response.setHeader('X-Request-Id', id);
      return id;
    },
    customLogLevel: (_request, { statusCode }) => (statusCode >= 500 ? 'warn' : 'debug'),
    // An unforeseen fault is logged once, with its cause, where it is answered.
    customErrorObject: () => ({}),
    serializers: {
      req: ({ id, method, url }: { id: string; method: string; url: string }) => ({ id, method, url }),
      res: ({ statusCode }: { statusCode: number }) => ({ statusCode }),
    },
  });
}

const withNonce: RequestHandler = (_request, response, next) => {
  response.locals['nonce'] = randomBytes(16).toString('base64');
  next();
};

/** Nothing loads from another host; styles need the nonce that their page was given. */
function headers(): RequestHandler {
  return helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        styleSrcElem: ["'self'", (_request, response) => `'nonce-${(response as Response).locals['nonce']}'`],
        styleSrcAttr: ["'unsafe-inline'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        fontSrc: ["'self'", 'data:'],
        workerSrc: ["'self'", 'blob:'],
        objectSrc: ["'none'"],
        baseUri: ["'none'"],
        frameAncestors: ["'none'"],
        formAction: ["'self'"],
      },
    },
    // Plain http on loopback: nothing to insist on.
    strictTransportSecurity: false,
  });
}

function limit(callsPerMinute: number): RequestHandler {
  return rateLimit({
    windowMs: 60_000,
    limit: callsPerMinute,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    handler: (_request: Request, _response: Response, next) =>
      next(new ApiError('too-many', `More than ${callsPerMinute} calls came within a minute. Wait a moment.`)),
  });
}
