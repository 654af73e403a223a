// @ts-check
import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { isRoot } from './paths.mjs';
import { run } from './run-command.mjs';

const BASE = '/usr/lib/postgresql';

/** Versions of the PostgreSQL server that are installed, newest first. */
export function postgresVersions() {
  const found = existsSync(BASE) ? readdirSync(BASE) : [];
  return found
    .filter((version) => Number.isFinite(Number(version)) && existsSync(join(BASE, version, 'bin/initdb')))
    .sort((a, b) => Number(b) - Number(a));
}

/** Folder of a version's programs, of the newest where none is asked for; null where there is none. */
export function postgresPrograms(/** @type {string | undefined} */ version = undefined) {
  const found = postgresVersions().find((one) => version === undefined || one === version);
  return found === undefined ? null : join(BASE, found, 'bin');
}

/** A program of PostgreSQL as whoever owns its data. @returns {[string, string[]]} */
export function ownerCommand(
  /** @type {string} */ programs,
  /** @type {string} */ program,
  /** @type {string[]} */ args,
) {
  const command = join(programs, program);
  return isRoot() ? ['runuser', ['-u', 'postgres', '--', command, ...args]] : [command, args];
}

/** Runs it. @throws Error in words */
export function asOwner(/** @type {string} */ programs, /** @type {string} */ program, /** @type {string[]} */ args) {
  // pg_ctl hands its pipes on to the server it starts: with one of ours it would be waited for until the server ends.
  const stdio = program === 'pg_ctl' ? 'ignore' : 'pipe';
  const [command, all] = ownerCommand(programs, program, args);
  run(command, all, { cwd: '/', stdio });
}

/** User and group that own the data where we are root. @returns {[number, number]} */
export function postgresUser() {
  const id = (/** @type {string} */ flag) => Number(run('id', [flag, 'postgres']).trim());
  return [id('-u'), id('-g')];
}
