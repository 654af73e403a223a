// @ts-check
// npm start: sets up what is missing, starts database and server, stops both on Ctrl-C.
import { freePort, startCluster } from './lib/cluster.mjs';
import { takeLock } from './lib/lock.mjs';
import { filesFolder, stateFolder } from './lib/paths.mjs';
import { launchServer, launchSimulators } from './lib/server.mjs';
import { ensureBuilt, ensureModules, ensureSystem } from './lib/setup.mjs';

const WANTED_PORT = wantedPort(process.env.UNTO_PORT ?? '4780');

async function start() {
  const host = process.env.UNTO_HOST ?? '127.0.0.1';
  if (!['127.0.0.1', 'localhost', '::1'].includes(host)) {
    throw new Error(`UNTO_HOST=${host}: this release has no sign-in, so it listens on loopback only.`);
  }
  const outside = process.env.DATABASE_URL;
  const folder = stateFolder();
  const lock = takeLock(folder);
  /** @type {Awaited<ReturnType<typeof startCluster>> | undefined} */
  let cluster;
  /** @type {ReturnType<typeof launchServer> | undefined} */
  let server;
  /** @type {ReturnType<typeof launchSimulators> | undefined} */
  let simulators;
  /** @type {Promise<void> | undefined} */
  let stopping;
  const stop = () => (stopping ??= stopAll());
  const stopAll = async () => {
    console.log('Stopping …');
    await server?.stop();
    await simulators?.stop();
    cluster?.stop();
    lock.release();
  };
  try {
    if (!outside) ensureSystem({ browser: false });
    ensureModules();
    ensureBuilt();
    // The simulators come up while the database does.
    const own = process.env.UNTO_DEVICES;
    simulators = own ? undefined : launchSimulators();
    cluster = outside ? undefined : await startCluster({ folder, durable: true });
    const port = await freePort(WANTED_PORT);
    if (port !== WANTED_PORT) console.log(`Port ${WANTED_PORT} is taken; using ${port} instead.`);
    const simulator = await simulators?.address;
    server = launchServer({ url: outside ?? cluster?.url ?? '', port, host, simulator, files: filesFolder(folder) });
    process.on('SIGINT', () => void stop());
    process.on('SIGTERM', () => void stop());
    const address = await server.address;
    lock.setAddress(address, cluster?.port);
    console.log(
      `\nUnto is at ${address}\nState folder: ${folder}\n${own ? 'Devices' : 'Simulated devices'}: ${own ?? simulator}\nCtrl-C stops it.`,
    );
    const code = await server.ended;
    const asked = stopping !== undefined;
    if (!asked) console.error(`The server ended by itself (code ${code}).`);
    await stop();
    process.exit(asked ? 0 : 1);
  } catch (error) {
    await stop();
    throw error;
  }
}

/** @throws Error in words */
function wantedPort(/** @type {string} */ text) {
  const port = Number(text);
  if (Number.isInteger(port) && port >= 0 && port < 65536) return port;
  console.error(`UNTO_PORT=${text} is no port: give a number from 1 to 65535. Nothing was started.`);
  process.exit(1);
}

start().catch((error) => {
  console.error(`\n${error.message}`);
  process.exit(1);
});
