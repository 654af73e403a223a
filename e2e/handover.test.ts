import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { expect, it } from 'vitest';
import { startCluster } from '../scripts/lib/cluster.mjs';
import { launchServer } from '../scripts/lib/server.mjs';

async function asked<T extends pg.QueryResultRow>(url: string, query: string): Promise<T[]> {
  const database = new pg.Client(url);
  await database.connect();
  try {
    return (await database.query<T>(query)).rows;
  } finally {
    await database.end();
  }
}

const OTHERS = `
SELECT c.relname AS name FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace
WHERE n.nspname IN ('public', 'pgboss') AND c.relkind IN ('r', 'v', 'S', 'p') AND pg_get_userbyid(c.relowner) <> 'unto_server'
UNION ALL
SELECT p.proname FROM pg_proc p JOIN pg_namespace n ON n.oid = p.pronamespace
WHERE n.nspname IN ('public', 'pgboss') AND pg_get_userbyid(p.proowner) <> 'unto_server'`;

it('an installation of a release whose server was the superuser is handed over to a role that is none, and works', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'unto-handover-'));
  chmodSync(folder, 0o711);
  const files = join(folder, 'files');
  let cluster = await startCluster({ folder, durable: false });
  const serve = (url: string) => launchServer({ url, port: 0, files, env: { UNTO_DEMO: 'no' } });
  try {
    await asked(
      cluster.adminUrl,
      'REASSIGN OWNED BY unto_server TO unto; DROP OWNED BY unto_server; DROP ROLE unto_server',
    );
    const before = serve(cluster.adminUrl);
    await before.address;
    await before.stop();
    expect((await asked(cluster.adminUrl, OTHERS.replaceAll('unto_server', 'unto'))).length).toBe(0);
    cluster.stop();

    cluster = await startCluster({ folder, durable: false });
    expect(await asked(cluster.adminUrl, OTHERS)).toEqual([]);
    expect(
      await asked(
        cluster.url,
        'SELECT rolsuper, rolcreatedb, rolcreaterole FROM pg_roles WHERE rolname = current_user',
      ),
    ).toEqual([{ rolsuper: false, rolcreatedb: false, rolcreaterole: false }]);
    const after = serve(cluster.url);
    expect((await fetch(`${await after.address}/api/today`)).status).toBe(200);
    await after.stop();
  } finally {
    cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
});
