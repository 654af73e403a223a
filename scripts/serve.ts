import { once } from 'node:events';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import pino from 'pino';
import { loadDemoWhenEmpty } from '@unto/demo';
import {
  connect,
  createApp,
  defineModels,
  devicesAt,
  folderStore,
  migrate,
  NewerSchemaError,
  openJobQueue,
  sceneTellerAt,
  startWork,
  sweepFiles,
} from '@unto/server';

/** Launches the server from its environment: DATABASE_URL, UNTO_FILES, UNTO_PORT, UNTO_HOST, UNTO_CLIENT, UNTO_DEMO, UNTO_DEVICES
 * (address of scale and the like; none without) or UNTO_SIMULATOR (the same, simulated: it is told what lies there), UNTO_CLOCK_AHEAD_S (for trials: server time ahead of the machine's). */
async function launch(): Promise<void> {
  const log = pino({ level: process.env['UNTO_LOG'] ?? 'warn' });
  const url = process.env['DATABASE_URL'];
  if (!url) throw new Error('DATABASE_URL names no database.');
  const host = process.env['UNTO_HOST'] ?? '127.0.0.1';
  const sequelize = connect(url);
  const models = defineModels(sequelize);
  await migrate(sequelize);
  const files = folderStore(process.env['UNTO_FILES'] ?? 'files');
  await sweepFiles({ sequelize, models, files });
  if (process.env['UNTO_DEMO'] !== 'no') await loadDemoWhenEmpty({ sequelize, models, files, now: new Date() });
  const aheadMs = 1000 * Number(process.env['UNTO_CLOCK_AHEAD_S'] ?? 0);
  const clock = () => new Date(Date.now() + aheadMs);
  const hosts = ['127.0.0.1', 'localhost', '[::1]', host];
  const simulator = process.env['UNTO_SIMULATOR'];
  const jobs = await openJobQueue(sequelize, (error) => log.warn({ err: error }, 'job queue'));
  const deps = {
    ...{ sequelize, models, files, clock, log, hosts, jobs },
    devices: devicesAt(simulator ?? process.env['UNTO_DEVICES']),
    clientFolder: process.env['UNTO_CLIENT'],
  };
  const stopWork = await startWork(deps, { tell: simulator ? sceneTellerAt(simulator) : null });
  const server = createServer(createApp(deps));
  server.listen(Number(process.env['UNTO_PORT'] ?? 4780), host);
  await once(server, 'listening');
  const { port } = server.address() as AddressInfo;
  process.stdout.write(`UNTO LISTENS ON http://${host}:${port}\n`);
  const stop = async () => {
    server.closeAllConnections();
    await new Promise((resolve) => server.close(resolve));
    await stopWork();
    await sequelize.close();
    process.exit(0);
  };
  process.on('SIGTERM', () => void stop());
  process.on('SIGINT', () => void stop());
}

launch().catch((error: unknown) => {
  process.stderr.write(
    `${error instanceof NewerSchemaError ? error.message : String((error as Error).stack ?? error)}\n`,
  );
  process.exit(error instanceof NewerSchemaError ? 3 : 1);
});
