import type { Express, Request, RequestHandler, Response } from 'express';
import { randomBytes, randomUUID } from 'node:crypto';
import { constants } from 'node:zlib';
import type { IncomingMessage, ServerResponse } from 'node:http';
import compression from 'compression';
import { rateLimit } from 'express-rate-limit';
import helmet, { type HelmetOptions } from 'helmet';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { ApiError } from '../errors/api-error.js';

/**
 * Calls that one client may make in a minute: far above what a bench with several screens asks, below what a loop gone wild does. Writes
 * are entered by people; what is heavy (files, imports, exports, searches) takes the server a while each.
 */
export const CALLS_PER_MINUTE = { any: 6000, writes: 1200, heavy: 240 };
export type CallLimits = typeof CALLS_PER_MINUTE;

/** What stands before every request: its id and line in the log, its protecting headers, its limit, its answer made small. */
export function shield(app: Express, log: Logger, limits = CALLS_PER_MINUTE): void {
  app.disable('x-powered-by');
  app.use(requestLog(log));
  app.use(withNonce, ...headers());
  // Made small in a moment rather than very small: it goes no further than this machine.
  app.use(compression({ level: 1, brotli: { params: { [constants.BROTLI_PARAM_QUALITY]: 1 } } }));
  app.use('/api', limit(limits.any, 'calls'));
  app.use(
    '/api',
    limit(limits.writes, 'changes', ({ method }) => method === 'GET' || method === 'HEAD'),
  );
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
function headers(): RequestHandler[] {
  const permissions: RequestHandler = (_request, response, next) => {
    response.set('Permissions-Policy', PERMISSIONS);
    next();
  };
  return [permissions, helmet(POLICY)];
}

/** What a page of ours may ask of its browser: the camera, for pictures of coupons and coats. */
const PERMISSIONS =
  'camera=(self), microphone=(), geolocation=(), payment=(), usb=(), serial=(), bluetooth=(), midi=(), display-capture=()';

const POLICY: HelmetOptions = {
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
  crossOriginOpenerPolicy: { policy: 'same-origin' },
  crossOriginResourcePolicy: { policy: 'same-origin' },
};

/** Lets one client, by its address, make so many calls of a kind in a minute. */
export function limit(most: number, what: string, skip: (request: Request) => boolean = () => false): RequestHandler {
  return rateLimit({
    windowMs: 60_000,
    limit: most,
    skip,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    handler: (_request: Request, _response: Response, next) =>
      next(
        new ApiError(
          'too-many',
          `More than ${most} ${what} came within a minute. Wait a moment; what you entered waits with you and is sent again.`,
        ),
      ),
  });
}
