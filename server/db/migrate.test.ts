import { randomUUID } from 'node:crypto';
import type { Model, ModelStatic, Sequelize } from 'sequelize';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { connect, defineModels, migrate, NewerSchemaError } from '../index.js';
import { freshDatabase } from '../testing/rig.js';
import { MIGRATIONS } from './migrate.js';

let sequelize: Sequelize;
beforeEach(async () => {
  sequelize = connect(await freshDatabase());
});
afterEach(() => sequelize.close());

const rowsOf = async (query: string) => (await sequelize.query(query))[0] as any[];

describe('migrations', () => {
  it('run from empty, once, and refuse a newer database', async () => {
    expect(await migrate(sequelize)).toEqual(MIGRATIONS.map(({ name }) => name));
    expect(await migrate(sequelize)).toEqual([]);
    await sequelize.query(`INSERT INTO migrations (name) VALUES ('9999-from-the-future')`);
    await expect(migrate(sequelize)).rejects.toThrow(NewerSchemaError);
  });

  it('leave a column for every attribute of every model, and no table without one', async () => {
    await migrate(sequelize);
    const models = Object.values(defineModels(sequelize));
    for (const model of models as unknown as ModelStatic<Model>[]) await model.findAll({ limit: 1 });
    const tables = await rowsOf(
      `SELECT tablename FROM pg_tables WHERE schemaname = 'public' AND tablename <> 'migrations'`,
    );
    const modelled = models.map((model) => model.tableName);
    expect(tables.map(({ tablename }) => tablename).filter((name) => !modelled.includes(name))).toEqual([]);
  });
});

const ids = Object.fromEntries(
  [
    'operator',
    'substrate',
    'compound',
    'container',
    'machine',
    'head',
    'lens',
    'ticket',
    'weighing',
    'coupon',
    'run',
    'recipe',
  ].map((name) => [name, randomUUID()]),
) as Record<string, string>;
const json = (value: unknown) => `'${JSON.stringify(value)}'::jsonb`;
const by = `now(), '${ids['operator']}'`;
const figure = { value: 10, unit: 'µm', grade: 'usual', formula: 'judgeLooks', inputs: [] };
const pins = { head: randomUUID(), lens: randomUUID() };

function item(kind: string, body: object): string {
  const revision = randomUUID();
  return `INSERT INTO store_items VALUES ('${ids[kind]}', '${kind}', 1, false, '${revision}');
    INSERT INTO store_revisions VALUES ('${revision}', '${ids[kind]}', 1, ${json(body)}, ${by});`;
}

/** Rows as each version wrote them, into the tables that were new with it. */
const FILLED: Record<string, () => string> = {
  '0001-foundation': () => `
    INSERT INTO operators VALUES ('${ids['operator']}', 'Ines Varga', 'lead', now());
    INSERT INTO workshop VALUES (1, 3, ${json({ name: 'Room', handsMinorPerMinute: 40, massUnit: 'g' })});
    INSERT INTO creations VALUES ('${randomUUID()}', 'clock', 'abc'), ('${randomUUID()}', 'run', 'def');
    ${item('substrate', { name: 'Steel' })} ${item('machine', { name: 'Bench' })} ${item('head', { name: 'CO2' })}
    ${item('lens', { name: 'L' })} ${item('container', { name: 'Can' })}
    ${item('compound', { name: 'Old Black', marks: 'light', bandLowUm: 8, bandHighUm: 12 })}
    INSERT INTO tickets VALUES ('${ids['ticket']}', 1, 1, 'Tags', 4, 38, 22, 2, '${ids['substrate']}', '${ids['head']}', '${ids['lens']}',
      '${ids['compound']}', '', '{}', false, '2026-03-01', '', 'open', now(), now(), '${ids['operator']}');
    INSERT INTO checks VALUES ('${randomUUID()}', '${ids['ticket']}', 'place', 'check', 'focus', ${by});
    INSERT INTO clocks VALUES ('${randomUUID()}', '${ids['ticket']}', 'dry', 'tray', 240, now(), NULL, NULL, '${ids['operator']}');
    INSERT INTO weighings VALUES ('${ids['weighing']}', '${ids['ticket']}', '${ids['container']}', (SELECT id FROM store_revisions LIMIT 1),
      '${ids['compound']}', (SELECT id FROM store_revisions LIMIT 1), 4, 300, 290, '{}', ${json(figure)}, NULL, NULL, NULL, ${by});
    INSERT INTO coupons VALUES ('${ids['coupon']}', 7, '${ids['ticket']}', '${ids['substrate']}', '${ids['compound']}', '${ids['head']}',
      '${ids['lens']}', 0, ${json({ code: 'K-007', fixed: { powerPercent: 80 } })}, 12, ${json(pins)}, 1, now(), now(), '${ids['operator']}');
    INSERT INTO readings (id, coupon_id, stage, source, entries, at, by_id)
      VALUES ('${randomUUID()}', '${ids['coupon']}', 'scrubbed', 'entered', '[{"cell": 0, "outcome": "holds"}]', ${by});
    INSERT INTO recipes VALUES ('${ids['recipe']}', '${ids['ticket']}', 1, 'climbed', '[]', 80, 150, 0.06, 1, 0, 17, 9, NULL, NULL, 'proved',
      ${json(pins)}, ${by});
    INSERT INTO runs VALUES ('${ids['run']}', '${ids['ticket']}', '${ids['recipe']}', NULL, '${ids['substrate']}', '${ids['compound']}',
      '${ids['head']}', ${json(pins)}, 2, '{}', 80, 40, 150, 0.06, 1, 0, 'off', 3, '', NULL, 'proved', ${by});
    INSERT INTO cleanings VALUES ('${randomUUID()}', '${ids['run']}', 'water and sponge', 2, 'none', ${by});
    INSERT INTO judgements VALUES ('${randomUUID()}', '${ids['run']}', 4, 'even', 2, '["grainy"]', '[]', '', ${by});
    INSERT INTO stated_settings VALUES ('${randomUUID()}', '{}', '{}', ${by});`,
  '0002-choosing': () => `
    INSERT INTO choices VALUES ('${randomUUID()}', '${ids['ticket']}', 'x', 'm', NULL, false, NULL, '{}', 1, 17, '[]', '[]', '', ${by});
    INSERT INTO identifications VALUES ('${randomUUID()}', 'box', NULL, NULL, '{}', NULL, NULL, 1, '[]', 'g', 0.5, 'usual', NULL, ${by});
    INSERT INTO stored_files VALUES ('${randomUUID()}', 'h', 'n', 'image/png', 10, ${by});`,
  '0003-placing':
    () => `INSERT INTO place_readings VALUES ('${randomUUID()}', '${ids['ticket']}', 'focus', '${ids['head']}', '${ids['lens']}',
      '{}', '{}', 'taken', '', ${by});`,
  '0004-coating': () => `
    INSERT INTO coat_readings VALUES ('${randomUUID()}', '${ids['ticket']}', '${ids['compound']}', (SELECT id FROM store_revisions LIMIT 1),
      '${ids['weighing']}', 'looks', '{}', ${json(figure)}, '[]', '', ${by});
    INSERT INTO stored_coats VALUES ('${randomUUID()}', '${ids['ticket']}', '${ids['compound']}', (SELECT id FROM store_revisions LIMIT 1), 1,
      'shelf', '', 'can be touched', now(), NULL, '${ids['operator']}', NULL, NULL, '', NULL);`,
  '0005-fitting': () => `
    INSERT INTO fittings VALUES ('${randomUUID()}', '${ids['machine']}', '${ids['head']}', '${ids['lens']}', NULL, 'mark', '[]', ${by});
    INSERT INTO sheets VALUES ('${randomUUID()}', '${ids['ticket']}', '{}', 10, 0, 0.7, ${by});`,
  '0006-picture':
    () => `INSERT INTO coat_pictures VALUES ('${randomUUID()}', '${ids['ticket']}', '${ids['weighing']}', '{}', '{}',
      'rinsed off', '', ${by});`,
  '0007-proving': () => `
    INSERT INTO coupon_pictures VALUES ('${randomUUID()}', '${ids['coupon']}', 'rinsed', 'h', ${json({ missMm: 0.04, cells: [] })}, ${by});
    INSERT INTO burns VALUES ('${randomUUID()}', '${ids['coupon']}', 1, 'done', 'M3', 5, 5, '[0]', '[]', NULL, '', now(), now(), now(),
      '${ids['operator']}');
    INSERT INTO burns VALUES ('${randomUUID()}', '${ids['coupon']}', 1, 'dropped', 'M3', 5, 5, '[0]', '[]', NULL, '', now(), now(), now(),
      '${ids['operator']}');
    INSERT INTO climb_steps VALUES ('${randomUUID()}', '${ids['ticket']}', 80, 40, 150, 0.06, 'holds', '', ${json(pins)}, ${by});`,
  '0012-cards': () => `
    INSERT INTO cards VALUES ('${randomUUID()}', 'A5', ${json({ basis: 'measured', paper: 0.8, steps: [0.6] })}, NULL, NULL, now(),
      '${ids['operator']}');`,
  '0018-remarks': () => `
    INSERT INTO remarks (id, ticket_id, run_id, words, file_hash, shows, at, by_id)
      VALUES ('${randomUUID()}', '${ids['ticket']}', '${ids['run']}', 'a rim', 'h', 'mark', ${by});`,
  '0021-recipes': () => `
    INSERT INTO recipe_states VALUES ('${randomUUID()}', '${ids['recipe']}', 'suspended', 'paler', DEFAULT, ${by});`,
  '0022-markings': () => `
    INSERT INTO markings VALUES ('00000000-0000-4000-8000-0000000000aa', '${ids['ticket']}', NULL, 12, '{"checked": []}', ${json(pins)}, '[]', '', NULL, NULL,
      DEFAULT, ${by});
    INSERT INTO piece_events VALUES ('${randomUUID()}', '00000000-0000-4000-8000-0000000000aa', 1, 'done', NULL, NULL, DEFAULT, ${by});
    INSERT INTO first_pieces VALUES ('${randomUUID()}', '00000000-0000-4000-8000-0000000000aa', 'held', DEFAULT, ${by});
    INSERT INTO sample_draws VALUES ('${randomUUID()}', '${ids['run']}', 2, 7, '[1, 3]', DEFAULT, ${by});
    INSERT INTO piece_checks VALUES ('${randomUUID()}', '${ids['run']}', 1, 'abrasive pad', 40, 'no change', DEFAULT, ${by});`,
  '0023-artworks': () => `
    INSERT INTO artworks VALUES ('00000000-0000-4000-8000-0000000000ab', '${ids['ticket']}', 'h', 'tag.svg', 'SVG', '{}', '{}', '[]', DEFAULT, ${by});
    INSERT INTO layouts VALUES ('${randomUUID()}', '${ids['ticket']}', '00000000-0000-4000-8000-0000000000ab', '{}', '{}', DEFAULT, ${by});`,
  '0024-durability': () => `
    INSERT INTO durability_tests VALUES ('00000000-0000-4000-8000-0000000000ac', '${ids['run']}', 1, 'dishwasher', 25, 49, 'eye', '2026-04-01', '', DEFAULT, ${by});
    INSERT INTO durability_looks VALUES ('${randomUUID()}', '00000000-0000-4000-8000-0000000000ac', 10, 'no change', 48, NULL, DEFAULT, ${by});
    INSERT INTO piece_faults VALUES ('${randomUUID()}', '${ids['run']}', 1, 'grainy', '{"x": 0.9, "y": 0.1}', DEFAULT, ${by});
    INSERT INTO verdicts VALUES ('${randomUUID()}', '${ids['ticket']}', 'hand over', '', 'proved', 2, 2, false, DEFAULT, ${by});`,
  '0025-bench': () => `
    INSERT INTO tray_readings VALUES ('${randomUUID()}', '${ids['run']}', 'h', '{"pieces": []}', DEFAULT, ${by});`,
  '0026-faults': () => `
    INSERT INTO fault_cases VALUES ('00000000-0000-4000-8000-0000000000ad', '${ids['ticket']}', 'run', '${ids['run']}', NULL, NULL, '[1]', '{}', DEFAULT, ${by});
    INSERT INTO fault_looks VALUES ('${randomUUID()}', '00000000-0000-4000-8000-0000000000ad', '["grainy"]', '[]', '', DEFAULT, ${by});
    INSERT INTO fault_tests VALUES ('${randomUUID()}', '00000000-0000-4000-8000-0000000000ad', 'heights', 'clear', '', DEFAULT, ${by});
    INSERT INTO fault_findings VALUES ('${randomUUID()}', '00000000-0000-4000-8000-0000000000ad', '["too fast"]', 'accept', NULL, '[]', '[]', '', DEFAULT, ${by});
    INSERT INTO reworks VALUES ('00000000-0000-4000-8000-0000000000ae', '${ids['ticket']}', '${ids['run']}', NULL, 'redo the region', '[1]', NULL, NULL, NULL, '', DEFAULT, ${by});
    INSERT INTO rework_runs VALUES ('${ids['run']}', '00000000-0000-4000-8000-0000000000ae');
    INSERT INTO station_questions VALUES ('00000000-0000-4000-8000-0000000000af', 'mark', 'Air shut', NULL, NULL, 100, NULL, DEFAULT, ${by});
    INSERT INTO station_question_ends VALUES ('${randomUUID()}', '00000000-0000-4000-8000-0000000000af', 'gone', DEFAULT, ${by});
    INSERT INTO upkeeps VALUES ('${randomUUID()}', '${ids['lens']}', 'cleaned', '', DEFAULT, ${by});`,
  '0027-ledger': () => `
    INSERT INTO ledger_filters VALUES ('${randomUUID()}', 'Faulty', '{"judged": "faulty"}', false, DEFAULT, ${by});`,
  '0015-edits': () => `INSERT INTO edits VALUES ('${randomUUID()}', 'h', '{"version": 2}', now());`,
};

/** What a migration calls otherwise than before: tables and columns. */
const RENAMED: Record<string, { tables: Record<string, string>; columns: Record<string, string> }> = {
  '0008-names': {
    tables: {
      clocks: 'timers',
      climb_steps: 'test_steps',
      store_items: 'inventory_items',
      store_revisions: 'inventory_revisions',
    },
    columns: { pins: 'revisions' },
  },
};

/** What a migration writes otherwise: a cell as it was, and as it must stand after. Every other cell stays as it was. */
const REWRITTEN: Record<string, (table: string, column: string, was: any) => unknown> = {
  '0002-choosing': (table, column, was) =>
    table === 'store_revisions' && column === 'body' && was.name === 'Old Black'
      ? expect.objectContaining({ ...was, potLifeHours: null, forceDry: 'never', marks: 'light' })
      : table === 'store_revisions' && column === 'body'
        ? expect.objectContaining(was)
        : was,
  '0007-proving': (table, column, was) =>
    table === 'coupons' && column === 'design'
      ? expect.objectContaining({
          code: 'K-007',
          hatches: 1,
          fixed: { powerPercent: 80, frequencyKHz: null, pulseNs: null },
        })
      : was,
  '0026-faults': (table, column, was) =>
    table === 'inventory_revisions' && column === 'body' && was.name === 'Old Black'
      ? { ...was, airAssist: null }
      : was,
  '0017-kinds': (table, column, was) =>
    table === 'inventory_revisions' && column === 'body' ? { ...was, ofKind: '', usual: [] } : was,
  '0008-names': (table, column, was) => {
    if (table === 'inventory_revisions' && column === 'body' && was.bandLowUm) {
      const { bandLowUm, bandHighUm, ...rest } = was;
      return { ...rest, dryFilmMinUm: bandLowUm, dryFilmMaxUm: bandHighUm };
    }
    if (table === 'workshop' && column === 'body') {
      const { handsMinorPerMinute, ...rest } = was;
      return { ...rest, labourMinorPerMinute: handsMinorPerMinute };
    }
    if (table === 'coat_readings' && column === 'kind') return 'inspection';
    if (table === 'coat_readings' && column === 'film') return { ...was, formula: 'judgeInspection' };
    if (table === 'coupon_pictures' && column === 'entries') return { cells: [], reprojectionErrorMm: 0.04 };
    if (table === 'recipes' && column === 'kind') return 'step test';
    if (table === 'creations' && column === 'resource' && was === 'clock') return 'timer';
    return was;
  },
  '0011-device-jobs': (table, column, was) =>
    table === 'burns' && column === 'state' && was === 'dropped' ? 'unknown' : was,
  '0010-setting': (table, column, was) =>
    table === 'inventory_revisions' && column === 'body' && was.dryFilmMinUm ? { ...was, application: 'aerosol' } : was,
};

type Snapshot = Record<string, any[]>;

async function snapshot(): Promise<Snapshot> {
  const tables = await rowsOf(
    `SELECT tablename FROM pg_tables WHERE schemaname = 'public' AND tablename <> 'migrations'`,
  );
  const rows: Snapshot = {};
  for (const { tablename } of tables)
    rows[tablename] = (await rowsOf(`SELECT to_jsonb(t) AS row FROM ${tablename} t ORDER BY t::text`)).map(
      ({ row }) => row,
    );
  return rows;
}

it('every version’s rows go through every later migration, cell by cell', async () => {
  await sequelize.query('CREATE TABLE migrations (name text PRIMARY KEY, at timestamptz NOT NULL DEFAULT now())');
  let before: Snapshot = {};
  for (const { name, sql } of MIGRATIONS) {
    await sequelize.query(sql);
    await sequelize.query('INSERT INTO migrations (name) VALUES (:name)', { replacements: { name } });
    const after = await snapshot();
    const { tables = {}, columns = {} } = RENAMED[name] ?? {};
    for (const [table, rows] of Object.entries(before)) {
      const now = tables[table] ?? table;
      const expected = rows.map((row) =>
        Object.fromEntries(
          Object.entries(row).map(([column, was]) => [
            columns[column] ?? column,
            REWRITTEN[name]?.(now, column, was) ?? was,
          ]),
        ),
      );
      const key = rows[0] && 'id' in rows[0] ? 'id' : 'name';
      const sorted = (all: any[]) => [...all].sort((a, b) => String(a[key]).localeCompare(String(b[key])));
      expect(sorted(after[now]!), `${now} after ${name}`).toEqual(
        sorted(expected).map((row) => expect.objectContaining(row)),
      );
    }
    if (FILLED[name]) await sequelize.query(`BEGIN; ${FILLED[name]()} COMMIT;`);
    before = await snapshot();
  }
  expect(await migrate(sequelize)).toEqual([]);
  const empty = Object.entries(before).filter(([, rows]) => rows.length === 0);
  expect(empty.map(([table]) => table)).toEqual([]);
  await expect(sequelize.query(`UPDATE inventory_revisions SET number = 2`)).rejects.toThrow(/append-only/);
  await expect(sequelize.query(`DELETE FROM coat_readings`)).rejects.toThrow(/append-only/);
  const [progress] = await rowsOf('SELECT * FROM ticket_progress');
  expect(progress).toMatchObject({ coated_pieces: 0, marked_pieces: 2, runs: 1, runs_faulty: 1, coupon: 'scrubbed' });
});

it.each(MIGRATIONS.slice(0, -1).map(({ name }, i) => [name, i] as const))(
  'a shop that stands at %s is brought to the newest version at once, as a start does',
  async (_, last) => {
    await sequelize.query('CREATE TABLE migrations (name text PRIMARY KEY, at timestamptz NOT NULL DEFAULT now())');
    for (const { name, sql } of MIGRATIONS.slice(0, last + 1)) {
      await sequelize.query(sql);
      await sequelize.query('INSERT INTO migrations (name) VALUES (:name)', { replacements: { name } });
      if (FILLED[name]) await sequelize.query(`BEGIN; ${FILLED[name]()} COMMIT;`);
    }
    expect(await migrate(sequelize)).toEqual(MIGRATIONS.slice(last + 1).map(({ name }) => name));
  },
);
