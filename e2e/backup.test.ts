import { randomUUID } from 'node:crypto';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { afterAll, describe, expect, inject, it } from 'vitest';
import { backup, restore } from '../scripts/lib/backup.mjs';
import { launchServer } from '../scripts/lib/server.mjs';
import { useApp } from './app.js';

const app = useApp();
const folder = mkdtempSync(join(tmpdir(), 'unto-backup-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

async function emptyDatabase(): Promise<string> {
  const name = `b${randomUUID().replaceAll('-', '')}`;
  const admin = new pg.Client(inject('databaseUrl'));
  await admin.connect();
  await admin.query(`CREATE DATABASE ${name}`);
  await admin.end();
  return inject('databaseUrl').replace(/\/postgres$/, `/${name}`);
}
/** What every table holds, row by row. */
async function contents(url: string): Promise<Record<string, string[]>> {
  const client = new pg.Client(url);
  await client.connect();
  const tables = await client.query("SELECT tablename AS name FROM pg_tables WHERE schemaname = 'public'");
  const found: Record<string, string[]> = {};
  for (const { name } of tables.rows as { name: string }[])
    found[name] = (await client.query(`SELECT t::text AS row FROM "${name}" t ORDER BY 1`)).rows.map(({ row }) => row);
  await client.end();
  return found;
}

describe('a backup', () => {
  const archive = join(folder, 'unto.tar');

  it('made while Unto runs comes back whole: every row of every table, every file, and the next server starts on it', async () => {
    const { files } = await backup({ url: app.database, files: app.files, to: archive });
    const url = await emptyDatabase();
    const into = join(folder, 'restored');
    await restore({ from: archive, url, files: into });
    const before = await contents(app.database);
    expect(Object.keys(before).length).toBeGreaterThan(25);
    expect(await contents(url)).toEqual(before);
    expect(files.length).toBeGreaterThan(50);
    for (const hash of files)
      expect(readFileSync(join(into, hash)).equals(readFileSync(join(app.files, hash)))).toBe(true);
    const server = launchServer({ url, port: 0, files: into, env: { UNTO_DEMO: 'yes' } });
    const base = await server.address;
    const [file] = files;
    expect((await fetch(`${base}/api/files/${file}`)).status).toBe(200);
    const tickets = async (at: string) => (await fetch(`${at}/api/tickets?limit=500`)).text();
    expect(await tickets(base)).toBe(await tickets(app.base));
    await server.stop();
    // The start sweeps no file that came back.
    expect(
      readdirSync(into)
        .filter((name) => /^[0-9a-f]{64}$/.test(name))
        .sort(),
    ).toEqual([...files].sort());
  }, 120_000);

  it('is one moment, whatever is written meanwhile', async () => {
    let written = 0;
    let going = true;
    const writer = (async () => {
      while (going) {
        const body = JSON.stringify({ id: randomUUID(), name: `Nobody ${written}`, role: 'trainee' });
        await fetch(`${app.base}/api/operators`, {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body,
        });
        written += 1;
      }
    })();
    const to = join(folder, 'busy.tar');
    const { tables } = await backup({ url: app.database, files: app.files, to });
    going = false;
    await writer;
    expect(written).toBeGreaterThan(5);
    const url = await emptyDatabase();
    // Restoring counts every table against the manifest, and says so where one differs.
    const back = await restore({ from: to, url, files: join(folder, 'busy') });
    expect(back.tables).toEqual(tables);
  }, 120_000);

  it.each([
    ['cut short', (bytes: Buffer) => bytes.subarray(0, bytes.length / 2)],
    [
      'changed in its middle',
      (bytes: Buffer) => Buffer.from(bytes).fill(7, bytes.length - 40_000, bytes.length - 39_000),
    ],
    ['of something else', () => Buffer.from('no archive')],
  ])('%s is refused before anything is touched', async (what, spoil) => {
    const broken = join(folder, `${what}.tar`);
    writeFileSync(broken, spoil(readFileSync(archive)));
    const url = await emptyDatabase();
    const into = join(folder, what);
    await expect(restore({ from: broken, url, files: into })).rejects.toThrow(/Nothing was touched/);
    expect(await contents(url)).toEqual({});
    expect(() => readdirSync(into)).toThrow();
  });

  it('overwrites neither a file, nor a database that holds something', async () => {
    await expect(backup({ url: app.database, files: app.files, to: archive })).rejects.toThrow(/is there already/);
    const into = { from: archive, url: app.database, files: join(folder, 'other') };
    await expect(restore(into)).rejects.toThrow(/database is not empty/);
  });
});
