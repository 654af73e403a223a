import { ConnectionError } from 'sequelize';

/** SQLSTATE classes and codes that mean the database is not there for the moment, and the codes of the network underneath. */
const AWAY_CODE = /^(08|57P|57014|55P03|53|25P03|E[A-Z]{3,})/;
/** What a client says of a connection that broke, which carries no code. */
const AWAY_WORDS =
  /Connection terminated|terminating connection|connection error and is not queryable|connection (timeout|timed out)|timeout exceeded when trying to connect|Client was closed|Query read timeout/i;

interface Wrapped {
  readonly name?: string;
  readonly message?: string;
  readonly code?: unknown;
  readonly original?: unknown;
  readonly cause?: unknown;
}

/** Whether something thrown says that the database, or the way to it, is gone for the moment: by itself or by what it wraps. */
export function saysAway(error: unknown): boolean {
  for (let one = error as Wrapped | undefined, i = 0; one && i < 5; i += 1) {
    if (one instanceof ConnectionError || one.name === 'SequelizeConnectionAcquireTimeoutError') return true;
    if (AWAY_WORDS.test(one.message ?? '')) return true;
    if (i > 0 && typeof one.code === 'string' && AWAY_CODE.test(one.code)) return true;
    one = (one.original ?? one.cause) as Wrapped | undefined;
  }
  return false;
}
