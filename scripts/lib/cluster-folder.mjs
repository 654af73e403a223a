// @ts-check
import { spawnSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import {
  chmodSync,
  chownSync,
  existsSync,
  mkdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import { isRoot } from './paths.mjs';
import { asOwner, postgresUser } from './postgres.mjs';
import { run } from './run-command.mjs';

/**
 * Makes the data folder beside its place and moves it there when it is whole, the password first: a start that is killed at any moment
 * leaves nothing that the next one could take for done.
 */
export function initialise(/** @type {string} */ programs, /** @type {string} */ folder) {
  const data = join(folder, 'postgres');
  const password = passwordOf(folder, 'database-password', { make: true });
  const half = `${data}.half`;
  rmSync(half, { recursive: true, force: true });
  mkdirSync(half, { mode: 0o700 });
  if (isRoot()) giveTo(folder, half);
  const passwordFile = `${data}.password`;
  writeFileSync(passwordFile, password, { mode: 0o600 });
  if (isRoot()) chownSync(passwordFile, ...postgresUser());
  const how = [
    '-U',
    'unto',
    '--pwfile',
    passwordFile,
    '--auth',
    'scram-sha-256',
    '--encoding',
    'UTF8',
    '--locale',
    'C.UTF-8',
  ];
  try {
    asOwner(programs, 'initdb', ['-D', half, ...how]);
  } finally {
    rmSync(passwordFile);
  }
  renameSync(half, data);
}

/**
 * A password of a state folder, made where it may be.
 * @param {string} folder @param {'database-password' | 'server-password'} name @param {{ make?: boolean }} options
 * @throws Error in words when it is not there and may not be made
 */
export function passwordOf(folder, name, { make = false } = {}) {
  const file = join(folder, name);
  if (existsSync(file)) return readFileSync(file, 'utf8').trim();
  if (!make)
    throw new Error(
      `${join(folder, 'postgres')} is there, but its password (${file}) is not. If it was copied, copy that too; if a first start was cut off and nothing was kept, remove it. Nothing was touched.`,
    );
  const password = randomBytes(24).toString('hex');
  writeWhole(file, password);
  return password;
}

/** A file is there whole or not at all. */
function writeWhole(/** @type {string} */ file, /** @type {string} */ text) {
  writeFileSync(`${file}.half`, text, { mode: 0o600 });
  renameSync(`${file}.half`, file);
}

/** Makes a data folder one that PostgreSQL takes: its own user's, closed to others; a copy has lost both. @throws Error in words */
export function requireReachable(/** @type {string} */ folder, /** @type {string} */ data) {
  const { uid, mode } = statSync(data);
  const owner = isRoot() ? postgresUser()[0] : process.getuid?.();
  if (uid !== owner && !isRoot())
    throw new Error(`${data} belongs to another user. Nothing was touched: start as that user, or make it yours.`);
  if (uid !== owner || mode & 0o077) console.log(`${data} had another owner or was open to others (a copy?). Mended.`);
  if (uid !== owner) run('chown', ['-R', postgresUser().join(':'), data]);
  if (mode & 0o077) chmodSync(data, 0o700);
  for (const name of ['database-password', 'server-password'])
    if (existsSync(join(folder, name))) chmodSync(join(folder, name), 0o600);
  if (isRoot()) giveTo(folder, data);
}

function giveTo(/** @type {string} */ folder, /** @type {string} */ data) {
  chmodSync(folder, 0o711);
  chownSync(data, ...postgresUser());
  if (spawnSync('runuser', ['-u', 'postgres', '--', 'test', '-x', data]).status !== 0) {
    throw new Error(`The postgres user cannot reach ${data}. Choose a state folder it can enter (UNTO_STATE_DIR).`);
  }
}
