import { CoreError } from '@unto/core';
import { PROBLEMS, type Problem, type ProblemFault, type ProblemKind } from '@unto/contract';
import { BaseError, DatabaseError } from 'sequelize';
import { ValidationError } from 'yup';
import { saysAway } from './away.js';

/** A refusal with its kind; the final handler turns it into a problem document. */
export class ApiError extends Error {
  readonly kind: ProblemKind;
  readonly faults: readonly ProblemFault[] | undefined;
  readonly current: unknown;

  constructor(kind: ProblemKind, detail: string, more: { faults?: readonly ProblemFault[]; current?: unknown } = {}) {
    super(detail);
    this.kind = kind;
    this.faults = more.faults;
    this.current = more.current;
  }
}

/** An input refused at one field. */
export function fault(path: string, message: string): ApiError {
  return new ApiError('invalid-input', message, { faults: [{ path, message }] });
}

/** Runs a piece of the core for one field of a request: its refusal lands at that field. */
export function atField<T>(path: string, work: () => T): T {
  try {
    return work();
  } catch (error) {
    if (error instanceof CoreError) throw fault(path, error.message);
    throw error;
  }
}

/** Waits for work on a part of a request: its refusal lands at that part. */
export async function atPart<T>(path: string, work: Promise<T>): Promise<T> {
  try {
    return await work;
  } catch (error) {
    const found = problemOf(error);
    if (found?.type !== 'invalid-input') throw error;
    const faults = found.faults?.map((one) => ({ ...one, path: `${path}.${one.path ?? ''}` }));
    throw new ApiError('invalid-input', found.detail, faults ? { faults } : {});
  }
}

/** SQLSTATE of a database that finds no room. */
const DISK_FULL = '53100';

/** Faults that are told at once: more than anybody reads, fewer than fill a disk. */
const MOST_FAULTS = 200;

/** Turns anything thrown into a problem document; `null` for what nobody foresaw. */
export function problemOf(error: unknown): Problem | null {
  if (error instanceof ApiError)
    return problem(error.kind, error.message, { faults: error.faults?.slice(0, MOST_FAULTS), current: error.current });
  if (error instanceof ValidationError) {
    const faults = (error.inner.length ? error.inner : [error]).slice(0, MOST_FAULTS).map(({ path, message }) => ({
      path: path ?? '',
      message: plain(message),
    }));
    return problem('invalid-input', faults[0]!.message, { faults });
  }
  if (error instanceof CoreError) {
    return problem('invalid-input', error.message, {
      faults: [{ path: error.path ?? '', line: error.line, message: error.message }],
    });
  }
  if (error instanceof BaseError) {
    const state = (error as DatabaseError & { original?: { code?: string } }).original?.code ?? '';
    if (state === DISK_FULL) return diskFull();
    if (state === 'UN001') return problem('append-only', 'What was recorded stays as it is; enter a correction.');
    if (state === '23505')
      return problem('identity-conflict', 'A record with this identifier is here already. Reload the page and look.');
    if (state === '23503') return problem('invalid-input', 'It refers to a record that does not exist.');
  }
  if ((error as NodeJS.ErrnoException).code === 'ENOSPC') return diskFull();
  if (saysAway(error)) return away();
  return unreadable(error as HttpError);
}

interface HttpError {
  readonly type?: string;
  readonly status?: number;
  readonly limit?: number;
}

/** What the server could not read of a request, before any of it was looked at. */
function unreadable({ type, status, limit = 0 }: HttpError): Problem | null {
  if (status === undefined || status < 400 || status > 499) return null;
  if (status === 404) return problem('not-found', 'There is nothing at that address.');
  if (status === 413)
    return problem(
      'too-large',
      `At most ${limit / 1e6} MB are taken here at once. Nothing was kept; send it in parts.`,
    );
  if (type === 'entity.parse.failed') return problem('not-json', 'The request is not readable JSON.');
  return problem('not-readable', 'Its address, encoding or length is not one that is read here. Nothing was kept.');
}

export function problem(kind: ProblemKind, detail: string, more: Partial<Problem> = {}): Problem {
  return { type: kind, ...PROBLEMS[kind], detail, ...more };
}

function diskFull(): Problem {
  return problem(
    'disk-full',
    'The disk of the server is full. Nothing of this was kept, and nothing kept before is lost: make room on it. What you entered waits, and is sent again.',
  );
}

function away(): Problem {
  return problem(
    'database-away',
    'The database does not answer just now. Nothing was lost: what you entered waits and is sent again.',
  );
}

/** Yup names unknown keys in programmer’s words. */
function plain(message: string): string {
  return message.replace(/^this field has unspecified keys: /, 'Unknown fields: ');
}
