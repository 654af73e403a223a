import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import pino from 'pino';
import { loadDemoWhenEmpty } from '@unto/demo';
import { connect, createApp, defineModels, folderStore, INLINE_POOL, migrate, NO_DEVICES } from '@unto/server';
import { startCluster } from '../lib/cluster.mjs';

export interface DemoServer {
  readonly base: string;
  readonly sequelize: ReturnType<typeof connect>;
}

/** The demo behind HTTP on a database of its own, for as long as `work` takes. */
export async function withDemoServer<T>(folder: string, work: (server: DemoServer) => Promise<T>): Promise<T> {
  const cluster = await startCluster({ folder, durable: false });
  const sequelize = connect(cluster.url);
  const models = defineModels(sequelize);
  const files = folderStore(join(folder, 'files'));
  const server = createServer(
    createApp({
      devices: NO_DEVICES,
      jobs: null,
      pool: INLINE_POOL,
      sequelize,
      models,
      files,
      clock: () => new Date(),
      log: pino({ level: 'silent' }),
      hosts: ['127.0.0.1'],
    }),
  );
  try {
    await migrate(sequelize);
    await loadDemoWhenEmpty({ sequelize, models, files, now: new Date() });
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    return await work({ base: `http://127.0.0.1:${(server.address() as AddressInfo).port}`, sequelize });
  } finally {
    server.closeAllConnections();
    server.close();
    await sequelize.close();
    cluster.stop();
  }
}
