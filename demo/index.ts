import type { Sequelize } from 'sequelize';
import type { FileStore, Models } from '@unto/server';
import { DONE_JOBS } from './done-jobs.js';
import { OPEN_JOBS } from './open-jobs.js';
import { playJob } from './play-job.js';
import { PRACTICE } from './practice.js';
import { Scribe } from './scribe.js';
import { demoStores } from './stores.js';

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
    const scribe = new Scribe({ sequelize, models, files, transaction }, now, [...DONE_JOBS, ...OPEN_JOBS]);
    for (const { key, name, role } of PEOPLE)
      await scribe.call('createOperator', { id: scribe.id(key), name, role }, { daysAgo: 430, by: key });
    await setUpWorkshop(scribe);
    for (const { key, kind, body } of demoStores(
      (other) => scribe.id(other),
      (ago) => scribe.day(ago),
    )) {
      await scribe.call('createStoreItem', { id: scribe.id(key), kind, body }, { daysAgo: 429, by: 'ines' });
    }
    for (const job of [...DONE_JOBS, ...OPEN_JOBS]) await playJob(scribe, job);
    for (const [i, stated] of PRACTICE.entries()) {
      await scribe.call(
        'createStatedSetting',
        { id: scribe.id(`practice-${i}`), ...stated },
        { daysAgo: 400 - i, by: 'ines' },
      );
    }
    scribe.pictures.close();
    return true;
  });
}

async function setUpWorkshop(scribe: Scribe): Promise<void> {
  const settings = {
    version: 1,
    name: 'Quillmere marking room',
    currency: 'CR',
    handsMinorPerMinute: 40,
    bound: 0.8,
    tolerancePower: 0.05,
    toleranceFocusMm: 0.3,
    massUnit: 'g',
  };
  await scribe.call('changeWorkshop', settings, { daysAgo: 430, by: 'ines' });
}
