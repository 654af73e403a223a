// @ts-check
// npm run backup [FILE]: everything kept, in one file, while Unto runs or not. npm run restore FILE: into an empty state folder.
import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { backup, restore } from './lib/backup.mjs';
import { runningUrl, startCluster } from './lib/cluster.mjs';
import { holderOf, takeLock } from './lib/lock.mjs';
import { filesFolder, stateFolder } from './lib/paths.mjs';

const [what, file] = process.argv.slice(2);
const state = stateFolder();
const files = filesFolder(state);

/** The database of the state folder: the one that runs, or its own started for this alone. */
async function database(/** @type {(url: string) => Promise<void>} */ work) {
  const outside = process.env.DATABASE_URL;
  if (outside) return work(outside);
  const databasePort = holderOf(state)?.databasePort;
  if (databasePort) return work(runningUrl(state, databasePort));
  const lock = takeLock(state);
  const cluster = await startCluster({ folder: state, durable: true });
  try {
    await work(cluster.url);
  } finally {
    cluster.stop();
    lock.release();
  }
}

const size = (/** @type {Record<string, number>} */ tables) => Object.values(tables).reduce((sum, n) => sum + n, 0);

async function main() {
  if (what === 'backup') {
    const to = file ?? `unto-${new Date().toISOString().slice(0, 16).replace(':', '')}.tar`;
    if (!process.env.DATABASE_URL && !existsSync(join(state, 'postgres')))
      throw new Error(`Nothing is kept in ${state}. Name another state folder with UNTO_STATE_DIR.`);
    await database(async (url) => {
      const { tables, files: kept } = await backup({ url, files, to });
      console.log(`${to}: ${size(tables)} rows of ${Object.keys(tables).length} tables, ${kept.length} files.`);
    });
  } else {
    if (!file) throw new Error('npm run restore FILE: name the backup.');
    if (!process.env.DATABASE_URL && readdirSync(state).length)
      throw new Error(`${state} is not empty. Nothing was touched: name an empty folder with UNTO_STATE_DIR.`);
    await database(async (url) => {
      const { tables, files: kept, at } = await restore({ from: file, url, files });
      console.log(
        `Back as of ${at}: ${size(tables)} rows of ${Object.keys(tables).length} tables and ${kept.length} files, each checked.\nnpm start, with UNTO_STATE_DIR=${state}, goes on from there.`,
      );
    });
  }
}

main().catch((error) => {
  console.error(error.message);
  process.exit(1);
});
