import type { Cause, FaultTestKey } from '@unto/core';
import type { DemoJob } from './job.js';
import type { Seeder } from './seeder.js';

/** What the faults of a job were traced to, by the key of the job: its first few faulty runs. */
const FOUND: Readonly<Record<string, { cause: Cause; test: FaultTestKey; runs: number; by: string; note: string }>> = {
  valves: { cause: 'too fast', test: 'slower bar', runs: 2, by: 'ines', note: 'Fine at two thirds of the speed.' },
  labels: {
    cause: 'extraction pulled the powder',
    test: 'hood bars',
    runs: 2,
    by: 'tobin',
    note: 'The hood stood close that week.',
  },
  spanner: { cause: 'interval too wide', test: 'finer bar', runs: 1, by: 'ines', note: '' },
  gauges: { cause: 'warped or tilted', test: 'heights', runs: 2, by: 'tobin', note: 'Sheared edge bent up.' },
  valves2: { cause: 'air blew the powder', test: 'nozzle', runs: 1, by: 'mirela', note: '' },
  'garden-stakes': { cause: 'too much energy', test: 'gentler bar', runs: 1, by: 'ines', note: '' },
};

/** Traces a faulty run of a job to its cause, where that was done. @param nth of the faulty runs of its job, from 0 */
export async function findFault(
  seeder: Seeder,
  { key, faults }: DemoJob,
  run: { readonly id: string; readonly pieces: number; readonly nth: number; readonly daysAgo: number },
): Promise<void> {
  const found = FOUND[key];
  if (!found || run.nth >= found.runs) return;
  const at = (later: number) => ({ daysAgo: run.daysAgo - later, by: found.by });
  const id = seeder.id(`${key}-fault-${run.nth}`);
  const looks = { faults: [faults!.fault], spots: [], note: '' };
  const opened = { id, kind: 'run', subjectId: run.id, pieces: [run.pieces], ...looks };
  await seeder.call('createFaultCase', opened, at(0.03));
  const test = { id: seeder.id(`${key}-fault-test-${run.nth}`), test: found.test, result: 'found', note: '' };
  await seeder.call('createFaultTest', test, { ...at(0.04), id });
  const finding = { causes: [found.cause], way: 'scrap', remedies: [], note: found.note };
  await seeder.call(
    'createFaultFinding',
    { id: seeder.id(`${key}-finding-${run.nth}`), ...finding },
    { ...at(0.05), id },
  );
}
