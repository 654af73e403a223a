// @ts-check
// npm start: sets up what is missing, starts database and server, brings back what dies, stops all on Ctrl-C.
import { startsAgain } from './lib/again.mjs';
import { freePort, startCluster } from './lib/cluster.mjs';
import { takeLock } from './lib/lock.mjs';
import { filesFolder, logsFolder, stateFolder } from './lib/paths.mjs';
import { launchServer, launchSimulators, logFile } from './lib/server.mjs';
import { ensureBuilt, ensureModules, ensureSystem } from './lib/setup.mjs';

/** How often the database is looked at, ms. */
const LOOK_EVERY = 1000;
const OWN_DEVICES = process.env.UNTO_DEVICES;
const OUTSIDE = process.env.DATABASE_URL;

/** Everything that runs, to be ended in this order. */
class Running {
  /** @type {ReturnType<typeof launchServer> | undefined} */
  server;
  /** @type {ReturnType<typeof launchSimulators> | undefined} */
  simulators;
  /** @type {Awaited<ReturnType<typeof startCluster>> | undefined} */
  cluster;
  /** @type {ReturnType<typeof takeLock> | undefined} */
  lock;
  /** @type {Promise<void> | undefined} */
  settingUp;
  /** @type {Promise<void> | undefined} */
  stopping;

  stop() {
    return (this.stopping ??= this.#stopAll());
  }
  async #stopAll() {
    console.log('Stopping …');
    await this.#stopPrograms();
    // What was just begun is finished first: a database half started would be nobody's.
    await this.settingUp?.catch(() => undefined);
    await this.#stopPrograms();
    try {
      this.cluster?.stop();
    } catch {
      // It is gone already.
    }
    this.lock?.release();
  }
  async #stopPrograms() {
    await this.server?.stop();
    await this.simulators?.stop();
  }
}

async function start() {
  const port = wantedPort(process.env.UNTO_PORT ?? '4780');
  const folder = stateFolder();
  if (!OUTSIDE) ensureSystem({ browser: false });
  const running = new Running();
  running.lock = takeLock(folder);
  // From here on whatever ends this start ends all of it: what was just begun is finished first, then everything is stopped.
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void running.stop());
  process.on('uncaughtException', (error) => void failed(running, error));
  try {
    await (running.settingUp = setUp(running, folder, port));
    if (!running.stopping) await keepUp(running, folder);
  } catch (error) {
    await failed(running, error);
  }
  await running.stopping;
}

async function failed(/** @type {Running} */ running, /** @type {unknown} */ error) {
  const asked = running.stopping !== undefined;
  await running.stop();
  if (!asked) console.error(`\n${error instanceof Error ? error.message : String(error)}`);
  process.exit(asked ? 0 : 1);
}

async function setUp(/** @type {Running} */ running, /** @type {string} */ folder, /** @type {number} */ wanted) {
  ensureModules();
  ensureBuilt();
  // The simulators come up while the database does.
  if (!OWN_DEVICES) running.simulators = launchSimulators();
  if (!OUTSIDE) running.cluster = await startCluster({ folder, durable: true });
  if (running.stopping) return;
  const port = await freePort(wanted);
  if (port !== wanted) console.log(`Port ${wanted} is taken; using ${port} instead.`);
  const simulator = await running.simulators?.address;
  if (running.stopping) return;
  const address = await startServer(running, folder, port, simulator);
  if (running.stopping) return;
  console.log(
    [
      `\nUnto is at ${address}`,
      `State folder: ${folder}`,
      `Log: ${logFile(logsFolder(folder))}`,
      `${OWN_DEVICES ? 'Devices' : 'Simulated devices'}: ${OWN_DEVICES ?? simulator}`,
      'Ctrl-C stops it.',
    ].join('\n'),
  );
}

async function startServer(
  /** @type {Running} */ running,
  /** @type {string} */ folder,
  /** @type {number} */ port,
  /** @type {string | undefined} */ simulator,
) {
  const url = OUTSIDE ?? running.cluster?.url ?? '';
  const host = process.env.UNTO_HOST ?? '127.0.0.1';
  const lock = running.lock?.fd;
  const logs = logsFolder(folder);
  running.server = launchServer({
    url,
    port,
    host,
    simulator,
    files: filesFolder(folder),
    logs,
    ...(lock === undefined ? {} : { lock }),
  });
  running.lock?.tell({ server: running.server.pid, databasePort: running.cluster?.port });
  const address = await running.server.address;
  running.lock?.tell({ server: running.server.pid, address, databasePort: running.cluster?.port });
  return address;
}

/** Brings a server or database back that ended by itself, a few times; says each time what happened. */
async function keepUp(/** @type {Running} */ running, /** @type {string} */ folder) {
  const [againServer, againDatabase] = [startsAgain(), startsAgain()];
  const look = setInterval(() => {
    const { cluster, stopping } = running;
    if (!cluster || stopping || cluster.alive()) return;
    console.error('The database ended by itself. Starting it again …');
    try {
      if (!againDatabase()) throw new Error('It ended too often.');
      cluster.start();
    } catch (error) {
      clearInterval(look);
      void failed(running, error);
    }
  }, LOOK_EVERY);
  const simulator = await running.simulators?.address;
  while (!running.stopping) {
    const { server } = running;
    const code = await server?.ended;
    if (running.stopping) break;
    const said = server?.lastWords();
    console.error(
      `The server ended by itself (${code})${said ? `: ${said}` : ''}. See ${logFile(logsFolder(folder))}.`,
    );
    if (!againServer()) throw new Error('It ended too often: not started again.');
    console.error('Starting it again …');
    const port = Number(new URL((await server?.address) ?? '').port);
    await startServer(running, folder, port, simulator);
  }
  clearInterval(look);
}

/** @throws Error in words */
function wantedPort(/** @type {string} */ text) {
  const port = Number(text);
  if (Number.isInteger(port) && port >= 0 && port < 65536) return port;
  throw new Error(`UNTO_PORT=${text} is no port: give a number from 1 to 65535. Nothing was started.`);
}

start().catch((error) => {
  console.error(error.message);
  process.exit(1);
});
