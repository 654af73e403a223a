import { Readable } from 'node:stream';
import type { ReadableStream } from 'node:stream/web';
import type { Line } from './line.js';
import { withDemoServer, type DemoServer } from './demo-server.js';
import { fillRuns } from './many-runs.js';

const RUNS = 1_000_000;
const ASKED = 120;
const GOAL_MS = 25;

/** The ledger over a million runs: filtered pages and searches over HTTP against the bare SQL, and what it is exported at. */
export async function ledgerOverHttp(folder: string): Promise<Line[]> {
  return withDemoServer(folder, async (server) => {
    const { sequelize } = server;
    await fillRuns(server, RUNS);
    const [[pair]] = (await sequelize.query(
      `SELECT substrate_id AS s, compound_id AS c, by_id AS o, max(can_lot) AS lot FROM ledger_rows
       WHERE compound_id IS NOT NULL GROUP BY 1, 2, 3 ORDER BY count(*) DESC LIMIT 1`,
    )) as unknown as [[{ s: string; c: string; o: string; lot: string }]];
    const cases: readonly (readonly [what: string, query: string, where: string])[] = [
      [
        'two filters',
        `substrateId=${pair.s}&compoundId=${pair.c}`,
        `substrate_id = '${pair.s}' AND compound_id = '${pair.c}'`,
      ],
      [
        'an operator and a lot',
        `operatorId=${pair.o}&canLot=${pair.lot}`,
        `by_id = '${pair.o}' AND can_lot = '${pair.lot}'`,
      ],
      ['faulty ones', 'judged=faulty', 'faulty'],
      ['a rare word', 'text=sundial', `words @@ to_tsquery('simple', '''sundial'':*')`],
      ['a common word', 'text=stainless', `words @@ to_tsquery('simple', '''stainless'':*')`],
      [
        'two words of which one is common',
        'text=corvid+grainy',
        `words @@ to_tsquery('simple', '''corvid'':* & ''grainy'':*')`,
      ],
    ];
    const lines: Line[] = [];
    for (const [what, query, where] of cases) lines.push(await pageLine(server, what, query, where));
    return [...lines, await sheetLine(server, pair.s), await exportLine(server)];
  });
}

const IMPORTED = 10_000;
const IMPORT_GOAL_S = 20;

/** A ledger of ten thousand runs brought into a shop that has none of them, against writing the same rows by SQL alone. */
export async function ledgerImport(folder: string): Promise<Line> {
  return withDemoServer(folder, async (server) => {
    const { base, sequelize } = server;
    await fillRuns(server, IMPORTED);
    const file = await (await fetch(`${base}/api/ledger.json`)).text();
    const [[{ id }]] = (await sequelize.query('SELECT id FROM operators LIMIT 1')) as unknown as [[{ id: string }]];
    await sequelize.query('CREATE TABLE bench.copied AS SELECT * FROM runs');
    await sequelize.query('TRUNCATE runs CASCADE');
    const bare = await seconds(() => sequelize.query('INSERT INTO runs SELECT * FROM bench.copied'));
    await sequelize.query('TRUNCATE runs CASCADE');
    const headers = { 'content-type': 'application/octet-stream', 'x-unto-operator': id };
    const taken = await seconds(async () => {
      const answer = await fetch(`${base}/api/ledger/import?format=json`, { method: 'POST', headers, body: file });
      const { created } = (await answer.json()) as { created?: number };
      if (!created || created < IMPORTED) throw new Error(`The import brought ${created ?? 'nothing'}.`);
    });
    return {
      what: `import of ${IMPORTED.toLocaleString('en')} runs, ${Math.round(file.length / 1e6)} MB of JSON`,
      figure: `${taken.toFixed(1)} s`,
      against: `their bare rows by SQL, ${bare.toFixed(1)} s`,
      ratio: `${(taken / bare).toFixed(1)} ×`,
      goal: `≤ ${IMPORT_GOAL_S} s`,
      met: taken <= IMPORT_GOAL_S,
    };
  });
}

async function seconds(work: () => Promise<unknown>): Promise<number> {
  const begun = performance.now();
  await work();
  return (performance.now() - begun) / 1000;
}

const SHEET_GOAL_MS = 200;

/** What works on the substrate that most runs are of. */
async function sheetLine({ base, sequelize }: DemoServer, id: string): Promise<Line> {
  const bare = await timed(() =>
    sequelize.query(
      `SELECT count(*) FROM (SELECT id FROM ledger_rows WHERE substrate_id = '${id}' AND judged ORDER BY at DESC, id DESC LIMIT 2000) l
       JOIN standing_runs s ON s.id = l.id`,
    ),
  );
  let asked = 0;
  const http = await timed(async () => {
    // An address of its own each time, so that none is answered from what was answered before.
    const answer = await fetch(`${base}/api/substrates/${id}/sheet?again=${(asked += 1)}`);
    if (answer.status !== 200) throw new Error(`The sheet answered ${answer.status}.`);
    await answer.text();
  });
  return {
    what: `substrate sheet over ${RUNS.toLocaleString('en')} runs`,
    figure: `p50 ${http.p50.toFixed(0)} ms, p95 ${http.p95.toFixed(0)} ms over HTTP`,
    against: `its newest runs counted by SQL, p95 ${bare.p95.toFixed(1)} ms`,
    ratio: `${(http.p95 / bare.p95).toFixed(1)} ×`,
    goal: `p95 ≤ ${SHEET_GOAL_MS} ms`,
    met: http.p95 <= SHEET_GOAL_MS,
  };
}

async function timed(work: () => Promise<unknown>): Promise<{ p50: number; p95: number }> {
  const times: number[] = [];
  for (let i = 0; i < ASKED + 10; i += 1) {
    const begun = performance.now();
    await work();
    if (i >= 10) times.push(performance.now() - begun);
  }
  times.sort((a, b) => a - b);
  return { p50: times[Math.floor(ASKED / 2)]!, p95: times[Math.floor(0.95 * ASKED)]! };
}

async function pageLine({ base, sequelize }: DemoServer, what: string, query: string, where: string): Promise<Line> {
  const sql = `SELECT * FROM ledger_rows WHERE ${where} ORDER BY at DESC, id DESC LIMIT 51`;
  const bare = await timed(() => sequelize.query(sql));
  let asked = 0;
  const http = await timed(async () => {
    // Each asks for another page size, so that none is answered from what was answered before.
    const { records } = (await (
      await fetch(`${base}/api/ledger?${query}&limit=50&to=${later((asked += 1))}`)
    ).json()) as { records: unknown[] };
    if (!records.length) throw new Error(`The ledger answered nothing for ${what}.`);
  });
  const [plan] = await sequelize.query(`EXPLAIN ${sql}`);
  const indexed = /Index|Bitmap/.test(JSON.stringify(plan)) && !/Seq Scan on ledger_rows/.test(JSON.stringify(plan));
  return {
    what: `ledger of ${RUNS.toLocaleString('en')} runs, 50 of them: ${what}`,
    figure: `p50 ${http.p50.toFixed(1)} ms, p95 ${http.p95.toFixed(1)} ms over HTTP; ${indexed ? 'by an index' : 'NO INDEX'}`,
    against: `the bare SQL, p95 ${bare.p95.toFixed(1)} ms`,
    ratio: `${(http.p95 / bare.p95).toFixed(1)} ×`,
    goal: `p95 ≤ ${GOAL_MS} ms`,
    met: http.p95 <= GOAL_MS && indexed,
  };
}

/** A day far enough off to hold every run, another each time. */
const later = (i: number) => new Date(Date.UTC(2100, 0, i)).toISOString().slice(0, 10);

const EXPORT_GOAL = 20;
const MOST_BYTES = 200e6;

/** The first 200 MB of the whole ledger as JSON: how fast they come, and what the server holds meanwhile. */
async function exportLine({ base }: DemoServer): Promise<Line> {
  const begun = performance.now();
  const before = process.memoryUsage().rss;
  let [bytes, most] = [0, 0];
  const response = await fetch(`${base}/api/ledger.json`);
  for await (const chunk of Readable.fromWeb(response.body as ReadableStream)) {
    bytes += (chunk as Buffer).length;
    most = Math.max(most, process.memoryUsage().rss - before);
    if (bytes > MOST_BYTES) break;
  }
  const rate = bytes / 1e6 / ((performance.now() - begun) / 1000);
  return {
    what: `export of the ledger as JSON, its first ${Math.round(bytes / 1e6)} MB`,
    figure: `${rate.toFixed(1)} MB/s, at most ${Math.round(most / 1e6)} MB more held`,
    against: 'its own goal',
    ratio: `${(rate / EXPORT_GOAL).toFixed(2)} ×`,
    goal: `≥ ${EXPORT_GOAL} MB/s, memory flat`,
    met: rate >= EXPORT_GOAL && most < 300e6,
  };
}
