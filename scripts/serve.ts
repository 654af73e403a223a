import { once } from 'node:events';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import type { Logger } from 'pino';
import { loadDemoWhenEmpty } from '@unto/demo';
import {
  connect,
  createApp,
  defineModels,
  devicesAt,
  folderStore,
  forgetEdits,
  LOOPBACK,
  migrate,
  NewerSchemaError,
  openJobQueue,
  openLog,
  requireDatabase,
  requireLoopback,
  requireReached,
  sceneTellerAt,
  startWork,
  threadPool,
  sweepFiles,
} from '@unto/server';

/** Launches the server from its environment: DATABASE_URL, UNTO_FILES, UNTO_PORT, UNTO_HOST, UNTO_CLIENT, UNTO_DEMO, UNTO_LOG and
 * UNTO_LOG_FILE, UNTO_DEVICES (address of scale and the like; none without) or UNTO_SIMULATOR (the same, simulated: it is told what lies
 * there), for trials UNTO_CLOCK_AHEAD_S (server time ahead of the machine's) and UNTO_CALLS_PER_MINUTE (of each kind, for each client), UNTO_ENDS_WITH_INPUT (ends when its input does). */
async function launch(log: Logger): Promise<void> {
  const host = requireLoopback(process.env['UNTO_HOST'] ?? '127.0.0.1');
  const url = requireDatabase(process.env['DATABASE_URL']);
  const sequelize = connect(url);
  await requireReached(sequelize, url);
  await migrated(url);
  const models = defineModels(sequelize);
  const files = folderStore(process.env['UNTO_FILES'] ?? 'files');
  await sweepFiles({ sequelize, models, files });
  await forgetEdits({ models, now: new Date() });
  if (process.env['UNTO_DEMO'] !== 'no') await loadDemoWhenEmpty({ sequelize, models, files, now: new Date() });
  const aheadMs = 1000 * Number(process.env['UNTO_CLOCK_AHEAD_S'] ?? 0);
  const clock = () => new Date(Date.now() + aheadMs);
  const simulator = process.env['UNTO_SIMULATOR'];
  const jobs = await openJobQueue(sequelize, (error) => log.warn({ err: error }, 'job queue'));
  const pool = threadPool(join(import.meta.dirname, 'pool-worker.js'));
  const deps = {
    ...{ sequelize, models, files, clock, log, jobs, pool, hosts: LOOPBACK },
    devices: devicesAt(simulator ?? process.env['UNTO_DEVICES']),
    clientFolder: process.env['UNTO_CLIENT'],
    callsPerMinute: callsPerMinute(process.env['UNTO_CALLS_PER_MINUTE']),
  };
  const stopWork = await startWork(deps, { tell: simulator ? sceneTellerAt(simulator) : null });
  const server = createServer(createApp(deps));
  holdsNobodyUp(server);
  server.listen(Number(process.env['UNTO_PORT'] ?? 4780), host);
  await once(server, 'listening');
  const { port } = server.address() as AddressInfo;
  log.info({ port, pid: process.pid }, 'listening');
  process.stdout.write(`UNTO LISTENS ON http://${host}:${port}\n`);
  const stop = async (why: string) => {
    log.info({ why }, 'stopping');
    server.closeAllConnections();
    await new Promise((resolve) => server.close(resolve));
    await stopWork();
    await pool.close();
    await sequelize.close();
    process.exit(0);
  };
  endsWith(stop);
}

/** A client that sends or takes its part too slowly is let go. */
function holdsNobodyUp(server: Server): void {
  server.headersTimeout = 15_000;
  server.requestTimeout = 120_000;
  server.setTimeout(120_000);
}

function callsPerMinute(text: string | undefined) {
  const most = Number(text);
  return most > 0 ? { any: most, writes: most, heavy: most } : undefined;
}

/** Brings the schema up to date, however long that takes. */
async function migrated(url: string): Promise<void> {
  const patient = connect(url, { withinMs: null });
  await migrate(patient);
  await patient.close();
}

/** Ends once, for whichever comes first. */
function endsWith(stop: (why: string) => Promise<void>): void {
  let stopping: Promise<void> | undefined;
  const once = (why: string) => void (stopping ??= stop(why));
  for (const signal of ['SIGTERM', 'SIGINT', 'SIGHUP'] as const) process.on(signal, () => once(signal));
  if (process.env['UNTO_ENDS_WITH_INPUT']) process.stdin.resume().on('end', () => once('what started it is gone'));
}

/** Says why in one line where whoever started it looks, and whole in the log. */
function fail(log: Logger, error: unknown): void {
  const { message, stack } = error instanceof Error ? error : new Error(String(error));
  log.fatal({ err: error }, 'ended');
  process.stderr.write(`${stack ?? ''}\nUNTO ENDS: ${message.split('\n')[0]}\n`);
  process.exit(error instanceof NewerSchemaError ? 3 : 1);
}

const log = openLog(process.env['UNTO_LOG_FILE'], process.env['UNTO_LOG']);
process.on('uncaughtException', (error) => fail(log, error));
process.on('unhandledRejection', (error) => fail(log, error));
launch(log).catch((error: unknown) => fail(log, error));
