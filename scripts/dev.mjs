// @ts-check
// npm run dev: database and server as with npm start, the client by Vite with reload on http://127.0.0.1:4781.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { startCluster } from './lib/cluster.mjs';
import { takeLock } from './lib/lock.mjs';
import { filesFolder, ROOT, stateFolder } from './lib/paths.mjs';
import { launchServer, launchSimulators } from './lib/server.mjs';
import { ensureBuilt, ensureModules, ensureSystem } from './lib/setup.mjs';

ensureSystem({ browser: false });
ensureModules();
ensureBuilt();
const folder = stateFolder();
const lock = takeLock(folder);
const cluster = await startCluster({ folder, durable: true });
const simulators = launchSimulators();
const simulator = await simulators.address;
const server = launchServer({ url: cluster.url, port: 4780, simulator, files: filesFolder(folder), lock: lock.fd });
lock.tell({ server: server.pid, address: await server.address, databasePort: cluster.port });
const vite = spawn(join(ROOT, 'node_modules/.bin/vite'), ['web'], { cwd: ROOT, stdio: 'inherit' });
const stop = async () => {
  vite.kill();
  await server.stop();
  await simulators.stop();
  cluster.stop();
  lock.release();
  process.exit(0);
};
process.on('SIGINT', () => void stop());
process.on('SIGTERM', () => void stop());
