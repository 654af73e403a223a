import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import pino from 'pino';
import { loadDemoWhenEmpty } from '@unto/demo';
import { connect, createApp, defineModels, folderStore, migrate, NO_DEVICES } from '@unto/server';
import { startCluster } from '../lib/cluster.mjs';
import type { Line } from './line.js';

export async function ledgerOverHttp(folder: string): Promise<Line> {
  const cluster = await startCluster({ folder, durable: false });
  const sequelize = connect(cluster.url);
  try {
    const models = defineModels(sequelize);
    const files = folderStore(join(folder, 'files'));
    await migrate(sequelize);
    await loadDemoWhenEmpty({ sequelize, models, files, now: new Date() });
    // 200 000 runs copied from the demo's, spread over fourteen months: bulk filling is the benchmark's business alone.
    await sequelize.query(
      `INSERT INTO runs SELECT gen_random_uuid(), ticket_id, recipe_id, NULL, substrate_id, compound_id, head_id, revisions, pieces, entered, power_percent, power_w, speed_mm_per_s, interval_mm, passes, focus_offset_mm, air, minutes, note, dose, grade, now() - random() * interval '420 days', by_id FROM runs, generate_series(1, (200000 / (SELECT count(*) FROM runs))::int + 1) LIMIT 200000`,
    );
    await sequelize.query('ANALYZE');
    const [[pair]] = (await sequelize.query(
      `SELECT substrate_id AS s, compound_id AS c FROM runs WHERE compound_id IS NOT NULL GROUP BY 1, 2 ORDER BY count(*) DESC LIMIT 1`,
    )) as unknown as [[{ s: string; c: string }]];
    const app = createApp({
      devices: NO_DEVICES,
      sequelize,
      models,
      files,
      clock: () => new Date(),
      log: pino({ level: 'silent' }),
      hosts: ['127.0.0.1'],
    });
    const server = createServer(app);
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}/api/ledger?substrateId=${pair.s}&compoundId=${pair.c}&limit=50`;
    const times: number[] = [];
    for (let i = 0; i < 220; i += 1) {
      const begun = performance.now();
      const { records } = (await (await fetch(url)).json()) as { records: unknown[] };
      if (records.length !== 50) throw new Error(`The ledger answered ${records.length} of 50.`);
      if (i >= 20) times.push(performance.now() - begun);
    }
    times.sort((a, b) => a - b);
    const [plan] = await sequelize.query(
      `EXPLAIN SELECT * FROM runs WHERE substrate_id = '${pair.s}' AND compound_id = '${pair.c}' ORDER BY at DESC, id DESC LIMIT 51`,
    );
    const indexed = JSON.stringify(plan).includes('Index Scan using runs_');
    server.closeAllConnections();
    server.close();
    const [p50, p95] = [times[100]!, times[190]!];
    return {
      what: 'ledger, 50 of 200 000 runs, two filters',
      figure: `p50 ${p50.toFixed(1)} ms, p95 ${p95.toFixed(1)} ms over HTTP`,
      against: 'the plan',
      ratio: indexed ? 'uses an index' : 'NO INDEX',
      goal: 'p95 ≤ 25 ms',
      met: p95 <= 25 && indexed,
    };
  } finally {
    await sequelize.close();
    cluster.stop();
  }
}
