import type { NextFunction, Request, Response } from 'express';
import { ApiError } from '../errors/api-error.js';

/**
 * Refuses requests whose Host is not this server's own (DNS rebinding) and writes whose Origin is another site's.
 * @param hosts names this server answers to, without port
 */
export function guard(hosts: readonly string[]) {
  return (request: Request, _response: Response, next: NextFunction): void => {
    const host = request.get('host') ?? '';
    if (!hosts.includes(nameOf(host))) throw new ApiError('wrong-origin', `This server does not answer to “${host}”.`);
    const origin = request.get('origin');
    if (
      origin &&
      request.method !== 'GET' &&
      request.method !== 'HEAD' &&
      !hosts.includes(nameOf(origin.replace(/^\w+:\/\//, '')))
    ) {
      throw new ApiError('wrong-origin', `Requests from ${origin} are not taken.`);
    }
    next();
  };
}

function nameOf(hostAndPort: string): string {
  return hostAndPort.replace(/:\d+$/, '');
}
