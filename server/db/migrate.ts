import type { Sequelize, Transaction } from 'sequelize';
import { Umzug } from 'umzug';
import * as foundation from './migrations/0001-foundation.js';
import * as choosing from './migrations/0002-choosing.js';
import * as placing from './migrations/0003-placing.js';
import * as coating from './migrations/0004-coating.js';
import * as fitting from './migrations/0005-fitting.js';
import * as picture from './migrations/0006-picture.js';
import * as proving from './migrations/0007-proving.js';
import * as names from './migrations/0008-names.js';
import * as standing from './migrations/0009-standing.js';
import * as setting from './migrations/0010-setting.js';
import * as deviceJobs from './migrations/0011-device-jobs.js';
import * as cards from './migrations/0012-cards.js';
import * as installation from './migrations/0013-installation.js';
import * as order from './migrations/0014-order.js';
import * as edits from './migrations/0015-edits.js';
import * as people from './migrations/0016-people.js';
import * as kinds from './migrations/0017-kinds.js';
import * as remarks from './migrations/0018-remarks.js';
import * as trays from './migrations/0019-trays.js';
import * as kept from './migrations/0020-kept.js';
import * as recipes from './migrations/0021-recipes.js';
import * as markings from './migrations/0022-markings.js';
import * as durability from './migrations/0024-durability.js';
import * as bench from './migrations/0025-bench.js';
import * as faults from './migrations/0026-faults.js';
import * as ledgerRows from './migrations/0027-ledger.js';
import * as ledgerAtOnce from './migrations/0028-ledger-at-once.js';
import * as lookedAgain from './migrations/0029-looked-again.js';
import * as artworks from './migrations/0023-artworks.js';

/** All migrations, oldest first. Forward only; a released one is never edited. */
export const MIGRATIONS = [
  foundation,
  choosing,
  placing,
  coating,
  fitting,
  picture,
  proving,
  names,
  standing,
  setting,
  deviceJobs,
  cards,
  installation,
  order,
  edits,
  people,
  kinds,
  remarks,
  trays,
  kept,
  recipes,
  markings,
  artworks,
  durability,
  bench,
  faults,
  ledgerRows,
  ledgerAtOnce,
  lookedAgain,
];

/** Rows written twice in one transaction leave checks to its end, and a table with checks to come cannot be altered: nothing is left. */
const SETTLED = 'SET CONSTRAINTS ALL IMMEDIATE;';

/** The database was made by a newer release than this code. */
export class NewerSchemaError extends Error {}

/**
 * Brings the schema up to date: every migration and its ledger row in one transaction, under an advisory lock so that two
 * servers starting together do it once.
 * @throws NewerSchemaError when the database knows migrations that this release does not
 */
export async function migrate(sequelize: Sequelize): Promise<string[]> {
  return sequelize.transaction(async (transaction) => {
    await sequelize.query('SELECT pg_advisory_xact_lock(4780)', { transaction });
    await sequelize.query(
      'CREATE TABLE IF NOT EXISTS migrations (name text PRIMARY KEY, at timestamptz NOT NULL DEFAULT now())',
      { transaction },
    );
    const umzug = new Umzug({
      migrations: MIGRATIONS.map(({ name, sql }) => ({
        name,
        up: async () => void (await sequelize.query(SETTLED + sql, { transaction })),
      })),
      storage: ledger(sequelize, transaction),
      logger: undefined,
    });
    const known = new Set<string>(MIGRATIONS.map(({ name }) => name));
    const strange = (await executedNames(sequelize, transaction)).filter((name) => !known.has(name));
    if (strange.length > 0) {
      throw new NewerSchemaError(
        `This database was made by a newer release (it knows ${strange.join(', ')}). Start that release, or give this one an empty state folder.`,
      );
    }
    return (await umzug.up()).map(({ name }) => name);
  });
}

function ledger(sequelize: Sequelize, transaction: Transaction) {
  return {
    logMigration: async ({ name }: { name: string }) => {
      await sequelize.query('INSERT INTO migrations (name) VALUES (:name)', { replacements: { name }, transaction });
    },
    unlogMigration: () => Promise.reject(new Error('Migrations go forward only.')),
    executed: () => executedNames(sequelize, transaction),
  };
}

async function executedNames(sequelize: Sequelize, transaction: Transaction): Promise<string[]> {
  const [rows] = await sequelize.query('SELECT name FROM migrations ORDER BY name', { transaction });
  return (rows as { name: string }[]).map(({ name }) => name);
}
