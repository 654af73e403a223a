import type { Problem } from '@unto/contract';

/** A refusal of the server, with its problem document. */
export class ApiProblem extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
}

/** The server or its database cannot be reached for the moment. */
export class Unreachable extends Error {}

/** Called with the server's clock at every answer. */
let heardTime: (server: string) => void = () => undefined;
export function onServerTime(listener: (server: string) => void): void {
  heardTime = listener;
}

export type Method = 'GET' | 'POST' | 'PUT';

/**
 * One request to the API.
 * @throws ApiProblem when it was refused, Unreachable when nobody answered
 */
export async function request<T>(method: Method, path: string, body?: unknown, operator?: string): Promise<T> {
  return answered<T>(path, {
    method,
    headers: {
      ...(body === undefined ? {} : { 'content-type': 'application/json' }),
      ...(operator ? { 'x-unto-operator': operator } : {}),
    },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
}

/** Sends a file as it is. @throws as request */
export async function sendFile<T>(path: string, file: Blob, operator: string): Promise<T> {
  const headers = { 'content-type': 'application/octet-stream', 'x-unto-operator': operator };
  return answered<T>(path, { method: 'POST', headers, body: file });
}

async function answered<T>(path: string, init: RequestInit): Promise<T> {
  let response: Response;
  try {
    response = await fetch(path, init);
  } catch {
    throw new Unreachable('The server does not answer.');
  }
  const time = response.headers.get('x-unto-time');
  if (time) heardTime(time);
  if (response.ok) return (await response.json()) as T;
  const problem = (await response.json().catch(() => null)) as Problem | null;
  if (response.status === 503 || !problem) throw new Unreachable(problem?.detail ?? 'The server does not answer.');
  throw new ApiProblem(problem);
}
