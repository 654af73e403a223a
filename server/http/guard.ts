import type { NextFunction, Request, Response } from 'express';
import { ApiError } from '../errors/api-error.js';

/**
 * Refuses requests whose Host is not this server's own (DNS rebinding), and writes whose Origin is any other than the page at that very
 * host and port: another program's page on the same machine is another site.
 * @param hosts names this server answers to, without port
 */
export function guard(hosts: readonly string[]) {
  return (request: Request, _response: Response, next: NextFunction): void => {
    const host = request.get('host') ?? '';
    if (!hosts.includes(host.replace(/:\d+$/, '')))
      throw new ApiError('wrong-origin', `This server does not answer to “${host}”.`);
    const origin = request.get('origin');
    const writes = request.method !== 'GET' && request.method !== 'HEAD';
    if (origin && writes && hostOf(origin) !== host)
      throw new ApiError('wrong-origin', `Requests from ${origin} are not taken.`);
    next();
  };
}

/** Host and port of an origin; null for one that is none (`null`, of a sandboxed page). */
function hostOf(origin: string): string | null {
  return URL.canParse(origin) && origin.startsWith('http:') ? new URL(origin).host : null;
}
