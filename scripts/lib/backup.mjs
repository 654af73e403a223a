// @ts-check
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import {
  createReadStream,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { copyFile, rename } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { dirname, join, resolve } from 'node:path';
import pg from 'pg';
import { postgresPrograms } from './postgres.mjs';

/** What a backup says of itself; a restore is held against it. */
/** @typedef {{ format: 'unto-backup', version: 1, at: string, installation: string | null, migration: string,
 *   tables: Record<string, number>, dump: string, files: readonly string[] }} Manifest */

const DUMP = 'database.dump';
const MANIFEST = 'manifest.json';

/**
 * A consistent copy of everything kept, while Unto runs: the database in one snapshot, then every file that it names. Contents are
 * written before their rows and never changed, so that all of them are there.
 * @param {{ url: string, files: string, to: string }} options database, folder of kept files, and the archive to make
 * @returns {Promise<Manifest>}
 */
export async function backup({ url, files, to }) {
  if (existsSync(to)) throw new Error(`${to} is there already. Nothing was overwritten: name another file.`);
  mkdirSync(dirname(resolve(to)), { recursive: true });
  return within('unto-backup-', dirname(resolve(to)), async (folder) => {
    const database = await connected(url);
    try {
      // The dump and the manifest see the same moment.
      await database.query('BEGIN ISOLATION LEVEL REPEATABLE READ READ ONLY');
      const snapshot = (await database.query('SELECT pg_export_snapshot() AS id')).rows[0].id;
      const dump = join(folder, DUMP);
      postgres('pg_dump', ['--format=custom', '--no-owner', `--snapshot=${snapshot}`, '--file', dump, url]);
      const manifest = await manifestOf(database, dump);
      await database.query('COMMIT');
      mkdirSync(join(folder, 'files'), { mode: 0o700 });
      for (const hash of manifest.files) await copyWhole(files, join(folder, 'files'), hash);
      writeFileSync(join(folder, MANIFEST), JSON.stringify(manifest, null, 2), { mode: 0o600 });
      const half = `${to}.half`;
      run('tar', ['-cf', half, '-C', folder, MANIFEST, DUMP, 'files']);
      await rename(half, to);
      return manifest;
    } finally {
      await database.end();
    }
  });
}

/**
 * Brings a backup back into an empty database and an empty folder, and holds what came against its manifest. Overwrites nothing.
 * @param {{ from: string, url: string, files: string }} options
 * @returns {Promise<Manifest>}
 */
export async function restore({ from, url, files }) {
  const database = await connected(url);
  try {
    const there = await tablesOf(database);
    if (there.length) throw new Error('That database is not empty. Nothing was touched: restore into an empty one.');
    if (existsSync(files) && readdirSync(files).length)
      throw new Error(`${files} is not empty. Nothing was touched: restore into another state folder.`);
    return await within('unto-restore-', tmpdir(), async (folder) => {
      const manifest = await unpacked(from, folder);
      postgres('pg_restore', [
        '--no-owner',
        '--exit-on-error',
        '--single-transaction',
        '--dbname',
        url,
        join(folder, DUMP),
      ]);
      mkdirSync(files, { recursive: true, mode: 0o700 });
      for (const hash of manifest.files) await copyWhole(join(folder, 'files'), files, hash);
      if (manifest.installation)
        writeFileSync(join(files, 'installation'), `${manifest.installation}\n`, { mode: 0o600 });
      await requireSame(database, manifest);
      return manifest;
    });
  } finally {
    await database.end();
  }
}

/** Unpacks an archive and checks every content of it. @returns {Promise<Manifest>} */
async function unpacked(/** @type {string} */ from, /** @type {string} */ folder) {
  if (!existsSync(from)) throw new Error(`There is no ${from}.`);
  if (spawnSync('tar', ['-xf', from, '-C', folder]).status !== 0 || !existsSync(join(folder, MANIFEST)))
    throw new Error(`${from} is no backup of Unto, or it is cut short. Nothing was touched.`);
  const manifest = /** @type {Manifest} */ (JSON.parse(readFileSync(join(folder, MANIFEST), 'utf8')));
  if (manifest.format !== 'unto-backup' || manifest.version !== 1)
    throw new Error(`${from} was made by another release than this one can read. Nothing was touched.`);
  if (!existsSync(join(folder, DUMP)) || (await hashOf(join(folder, DUMP))) !== manifest.dump)
    throw new Error(`The database in ${from} is damaged. Nothing was touched.`);
  for (const hash of manifest.files)
    if (!existsSync(join(folder, 'files', hash)) || (await hashOf(join(folder, 'files', hash))) !== hash)
      throw new Error(`A file in ${from} is missing or damaged (${hash.slice(0, 12)}…). Nothing was touched.`);
  return manifest;
}

/** @returns {Promise<Manifest>} */
async function manifestOf(/** @type {pg.Client} */ database, /** @type {string} */ dump) {
  const one = async (/** @type {string} */ query) => (await database.query(query)).rows[0];
  const names = (await database.query('SELECT hash FROM stored_files ORDER BY hash')).rows;
  return {
    format: 'unto-backup',
    version: 1,
    at: new Date().toISOString(),
    installation: (await isThere(database, 'installation')) ? (await one('SELECT id FROM installation')).id : null,
    migration: (await one('SELECT max(name) AS name FROM migrations')).name,
    tables: await counts(database),
    dump: await hashOf(dump),
    files: [...new Set(names.map(({ hash }) => hash))],
  };
}

/** A release of before had no such table. */
async function isThere(/** @type {pg.Client} */ database, /** @type {string} */ table) {
  return (await database.query('SELECT to_regclass($1) IS NOT NULL AS is', [`public.${table}`])).rows[0].is;
}

async function requireSame(/** @type {pg.Client} */ database, /** @type {Manifest} */ { tables }) {
  const now = await counts(database);
  const other = Object.keys({ ...tables, ...now }).filter((table) => now[table] !== tables[table]);
  if (other.length)
    throw new Error(
      `What came back is not what was kept: ${other.map((t) => `${t} ${now[t]} of ${tables[t]}`).join(', ')}.`,
    );
}

async function tablesOf(/** @type {pg.Client} */ database) {
  const { rows } = await database.query(
    "SELECT tablename FROM pg_tables WHERE schemaname = 'public' ORDER BY tablename",
  );
  return /** @type {string[]} */ (rows.map(({ tablename }) => tablename));
}

/** @returns {Promise<Record<string, number>>} */
async function counts(/** @type {pg.Client} */ database) {
  /** @type {Record<string, number>} */
  const found = {};
  for (const table of await tablesOf(database))
    found[table] = Number((await database.query(`SELECT count(*) AS n FROM "${table}"`)).rows[0].n);
  return found;
}

async function copyWhole(/** @type {string} */ from, /** @type {string} */ to, /** @type {string} */ hash) {
  const source = [join(from, hash), join(from, 'aside', hash)].find((path) => existsSync(path));
  if (!source)
    throw new Error(`A kept file is missing in ${from} (${hash}). The copy would not be whole, so none was made.`);
  await copyFile(source, join(to, hash));
}

/** @returns {Promise<string>} */
function hashOf(/** @type {string} */ path) {
  return new Promise((resolve_, reject) => {
    const hash = createHash('sha256');
    createReadStream(path)
      .on('data', (chunk) => hash.update(chunk))
      .on('end', () => resolve_(hash.digest('hex')))
      .on('error', reject);
  });
}

async function connected(/** @type {string} */ url) {
  const client = new pg.Client({ connectionString: url, connectionTimeoutMillis: 5000 });
  await client.connect();
  return client;
}

/** Work in a folder of its own beside what it makes, which goes whatever comes of it. */
async function within(
  /** @type {string} */ name,
  /** @type {string} */ beside,
  /** @type {(folder: string) => Promise<Manifest>} */ work,
) {
  const folder = mkdtempSync(join(beside, `.${name}`));
  try {
    return await work(folder);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

function postgres(/** @type {string} */ program, /** @type {string[]} */ args) {
  const programs = postgresPrograms();
  if (!programs) throw new Error('PostgreSQL is not installed.');
  run(join(programs, program), args);
}

/** The password in an address is never shown. */
function run(/** @type {string} */ command, /** @type {string[]} */ args) {
  const result = spawnSync(command, args, { encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'] });
  if (result.status === 0) return;
  const said = (result.stderr || result.error?.message || '').trim().split('\n')[0] ?? '';
  throw new Error(`${command.split('/').pop()} failed: ${said.replace(/:[^:@/]+@/, ':…@')}`);
}
