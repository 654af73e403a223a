import type { Sequelize } from 'sequelize';
import type { FileStore, Models } from '@unto/server';
import { DONE_JOBS } from './done-jobs.js';
import { OPEN_JOBS } from './open-jobs.js';
import { seedCard } from './card.js';
import { seedJob } from './seed-job.js';
import { PRACTICE } from './stated-settings.js';
import { Seeder } from './seeder.js';
import { demoInventory } from './inventory/index.js';

const PEOPLE = [
  { key: 'ines', name: 'Ines Varga', role: 'lead' },
  { key: 'tobin', name: 'Tobin Ash', role: 'operator' },
  { key: 'mirela', name: 'Mirela Onn', role: 'trainee' },
];

/** Loads the made-up workshop into a database that has no operator yet; in one transaction, the same from the same day. */
export async function loadDemoWhenEmpty(into: {
  sequelize: Sequelize;
  models: Models;
  files: FileStore;
  now: Date;
}): Promise<boolean> {
  const { sequelize, models, files, now } = into;
  return sequelize.transaction(async (transaction) => {
    await sequelize.query('SELECT pg_advisory_xact_lock(4781)', { transaction });
    if ((await models.operators.count({ transaction })) > 0) return false;
    const seeder = new Seeder({ sequelize, models, files, transaction }, now, [...DONE_JOBS, ...OPEN_JOBS]);
    for (const { key, name, role } of PEOPLE)
      await seeder.call('createOperator', { id: seeder.id(key), name, role }, { daysAgo: 430, by: key });
    await setUpWorkshop(seeder);
    for (const { key, kind, body } of demoInventory(
      (other) => seeder.id(other),
      (ago) => seeder.day(ago),
    )) {
      await seeder.call('createInventoryItem', { id: seeder.id(key), kind, body }, { daysAgo: 429, by: 'ines' });
    }
    await seedCard(seeder);
    for (const job of [...DONE_JOBS, ...OPEN_JOBS]) await seedJob(seeder, job);
    for (const [i, stated] of PRACTICE.entries()) {
      await seeder.call(
        'createStatedSetting',
        { id: seeder.id(`practice-${i}`), ...stated },
        { daysAgo: 400 - i, by: 'ines' },
      );
    }
    seeder.pictures.close();
    return true;
  });
}

async function setUpWorkshop(seeder: Seeder): Promise<void> {
  const settings = {
    version: 1,
    name: 'Quillmere marking room',
    currency: 'CR',
    labourMinorPerMinute: 40,
    bound: 0.8,
    tolerancePower: 0.05,
    toleranceFocusMm: 0.3,
    firstPieceStop: true,
    speedUnit: 'mm/s',
    intervalUnit: 'mm',
    lengthUnit: 'mm',
    filmUnit: 'µm',
    massUnit: 'g',
    timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
  };
  await seeder.call('changeWorkshop', settings, { daysAgo: 430, by: 'ines' });
}
