import type { DemoServer } from './demo-server.js';

/** Runs that are copied at once: a statement may not take long. */
const AT_ONCE = 10_000;

/**
 * Copies the runs and judgements of the demo until there are so many, spread over five years: bulk filling is the benchmark's business
 * alone. The rows of the ledger are worked out for many at once, as the database does one by one.
 */
export async function fillRuns({ sequelize }: DemoServer, count: number): Promise<void> {
  const query = async (sql: string): Promise<unknown[]> => (await sequelize.query(sql))[0] as unknown[];
  await query('ALTER TABLE runs DISABLE TRIGGER in_ledger');
  await query('ALTER TABLE judgements DISABLE TRIGGER in_ledger');
  await query('CREATE SCHEMA bench');
  await query('CREATE TABLE bench.runs AS SELECT *, row_number() OVER () AS n FROM runs');
  await query('CREATE TABLE bench.judgements AS SELECT *, row_number() OVER () AS n FROM judgements');
  await query('CREATE TABLE bench.made (id uuid, at timestamptz, g bigint)');
  const [sizes] = (await query(
    'SELECT (SELECT count(*) FROM bench.runs)::int AS runs, (SELECT count(*) FROM bench.judgements)::int AS judged',
  )) as [{ runs: number; judged: number }];
  for (let made = sizes.runs; made < count; made += AT_ONCE)
    await fillSome(query, Math.min(AT_ONCE, count - made), made, sizes);
  await query('ALTER TABLE runs ENABLE TRIGGER in_ledger');
  await query('ALTER TABLE judgements ENABLE TRIGGER in_ledger');
  // As the database does by itself in the years in which so many come.
  for (const table of ['runs', 'judgements', 'ledger_rows']) await query(`VACUUM (ANALYZE) ${table}`);
}

type Query = (sql: string) => Promise<unknown[]>;

async function fillSome(
  query: Query,
  many: number,
  from: number,
  sizes: { runs: number; judged: number },
): Promise<void> {
  await query('TRUNCATE bench.made');
  const runs = await copying(
    query,
    'runs',
    {
      id: 'gen_random_uuid()',
      at: "now() - random() * interval '1800 days'",
      sequence: "nextval('happened')",
      corrects_id: 'NULL',
      note: `CASE WHEN g % 1000 = 0 THEN 'sundial, second strip' ELSE t.note END`,
    },
    `generate_series(${from + 1}, ${from + many}) g JOIN bench.runs t ON t.n = 1 + g % ${sizes.runs}`,
  );
  await query(
    `WITH made AS (${runs} RETURNING id, at) INSERT INTO bench.made SELECT id, at, row_number() OVER () FROM made`,
  );
  await query('ANALYZE bench.made');
  await query(
    await copying(
      query,
      'judgements',
      { id: 'gen_random_uuid()', run_id: 'm.id', at: 'm.at', sequence: "nextval('happened')" },
      `bench.made m JOIN bench.judgements t ON t.n = 1 + m.g % ${sizes.judged}`,
    ),
  );
  await query(
    'INSERT INTO ledger_rows SELECT l.* FROM bench.made m CROSS JOIN LATERAL (SELECT * FROM ledger_row_of o WHERE o.id = m.id OFFSET 0) l',
  );
}

/** The statement that copies rows of a table, but for some columns. */
async function copying(
  query: Query,
  table: string,
  other: Readonly<Record<string, string>>,
  from: string,
): Promise<string> {
  const columns = (await query(
    `SELECT column_name AS name FROM information_schema.columns
     WHERE table_name = '${table}' AND table_schema = 'public' ORDER BY ordinal_position`,
  )) as { name: string }[];
  const names = columns.map(({ name }) => `"${name}"`).join(', ');
  const values = columns.map(({ name }) => other[name] ?? `t."${name}"`).join(', ');
  return `INSERT INTO ${table} (${names}) SELECT ${values} FROM ${from}`;
}
