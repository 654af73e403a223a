import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { runningUrl } from '../lib/cluster.mjs';
import { ROOT } from '../lib/paths.mjs';
import { Installation, smallWrite, type Finding } from './installation.js';

/** A backup made while somebody writes, brought back into an empty folder, started, and held against what it was made of. */
export async function restores(): Promise<Finding[]> {
  const unto = new Installation();
  const folder = mkdtempSync(join(tmpdir(), 'unto-torture-'));
  const back = new Installation();
  try {
    await unto.start();
    let writing = true;
    const writer = (async () => {
      while (writing) await unto.call('POST', '/api/stated-settings', smallWrite());
    })();
    const file = join(folder, 'backup.tar');
    const made = script('backup', file, unto.folder);
    writing = false;
    await writer;
    const restored = script('restore', file, back.folder);
    await back.start();
    const [before, after] = [await contents(unto), await contents(back)];
    const changed = Object.keys(before.tables).filter((table) => before.tables[table] !== after.tables[table]);
    const sameFiles = JSON.stringify(before.files) === JSON.stringify(after.files);
    // What was written after the moment of the backup, and what a start itself notes, is not in it.
    const unlike = changed.filter((table) => !['stated_settings', 'creations', 'migrations', 'edits'].includes(table));
    return [
      {
        trial: 'restore',
        tried: 'a backup made under a writer, restored into an empty folder and started',
        found: `${Object.keys(before.tables).length} tables, ${before.files.length} files; unlike: ${unlike.join(', ') || 'none'}${sameFiles ? '' : ', files'}`,
        held: made && restored && unlike.length === 0 && sameFiles,
      },
      {
        trial: 'restore',
        tried: 'the same restored over what is there',
        found: script('restore', file, back.folder) ? 'taken' : 'refused, nothing touched',
        held: (await contents(back)).files.length === after.files.length,
      },
    ];
  } finally {
    await unto.remove();
    await back.remove();
    rmSync(folder, { recursive: true, force: true });
  }
}

function script(what: 'backup' | 'restore', file: string, state: string): boolean {
  const env = { ...process.env, UNTO_STATE_DIR: state };
  return (
    spawnSync(process.execPath, [join(ROOT, 'scripts/backup.mjs'), what, file], { env, stdio: 'ignore' }).status === 0
  );
}

/** Every table by what it holds, and every kept file. */
async function contents({ folder, lock }: Installation) {
  const database = new pg.Client(runningUrl(folder, lock.databasePort));
  await database.connect();
  const { rows } = await database.query<{ name: string }>(
    `SELECT table_name AS name FROM information_schema.tables WHERE table_schema = 'public' AND table_type = 'BASE TABLE'`,
  );
  const tables: Record<string, string> = {};
  for (const { name } of rows) {
    const all = await database.query<{ md5: string }>(
      `SELECT coalesce(md5(string_agg(t::text, '|' ORDER BY t::text)), '') AS md5 FROM "${name}" t`,
    );
    tables[name] = all.rows[0]!.md5;
  }
  await database.end();
  const files = readdirSync(join(folder, 'files'), { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && /^[0-9a-f]{64}$/.test(entry.name))
    .map((entry) =>
      createHash('sha256')
        .update(readFileSync(join(entry.parentPath, entry.name)))
        .digest('hex'),
    )
    .sort();
  return { tables, files };
}
