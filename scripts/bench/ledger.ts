import type { Line } from './line.js';
import { withDemoServer } from './demo-server.js';

export async function ledgerOverHttp(folder: string): Promise<Line> {
  return withDemoServer(folder, async ({ base, sequelize }) => {
    // 200 000 runs copied from the demo's, spread over fourteen months: bulk filling is the benchmark's business alone.
    await sequelize.query(
      `INSERT INTO runs SELECT gen_random_uuid(), ticket_id, recipe_id, NULL, substrate_id, compound_id, head_id, revisions, pieces, entered, power_percent, power_w, speed_mm_per_s, interval_mm, passes, focus_offset_mm, air, minutes, note, dose, grade, now() - random() * interval '420 days', by_id FROM runs, generate_series(1, (200000 / (SELECT count(*) FROM runs))::int + 1) LIMIT 200000`,
    );
    await sequelize.query('ANALYZE');
    const [[pair]] = (await sequelize.query(
      `SELECT substrate_id AS s, compound_id AS c FROM runs WHERE compound_id IS NOT NULL GROUP BY 1, 2 ORDER BY count(*) DESC LIMIT 1`,
    )) as unknown as [[{ s: string; c: string }]];
    const url = `${base}/api/ledger?substrateId=${pair.s}&compoundId=${pair.c}&limit=50`;
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
    const [p50, p95] = [times[100]!, times[190]!];
    return {
      what: 'ledger, 50 of 200 000 runs, two filters',
      figure: `p50 ${p50.toFixed(1)} ms, p95 ${p95.toFixed(1)} ms over HTTP`,
      against: 'the plan',
      ratio: indexed ? 'uses an index' : 'NO INDEX',
      goal: 'p95 ≤ 25 ms',
      met: p95 <= 25 && indexed,
    };
  });
}
