import type { DemoJob } from './job.js';
import type { Seeder } from './seeder.js';

/** What the demo's operators noted beside their work, by the key of a job. */
const NOTES: Readonly<Record<string, readonly { daysAgo: number; by: string; words: string; newestRun?: true }[]>> = {
  orchid: [
    { daysAgo: 2, by: 'tobin', words: 'Box 3 came bent up at one corner: put aside, to be rolled flat.' },
    { daysAgo: 0.5, by: 'ines', words: 'The faint corner is the one that lies high.', newestRun: true },
  ],
};

/** Puts down what was noted of a job. */
export async function noteDown(seeder: Seeder, { key, runs = 0 }: Pick<DemoJob, 'key' | 'runs'>): Promise<void> {
  for (const [i, { daysAgo, by, words, newestRun }] of (NOTES[key] ?? []).entries()) {
    const runId = newestRun ? seeder.id(`${key}-run-${runs - 1}`) : null;
    const remark = { id: seeder.id(`${key}-remark-${i}`), ticketId: seeder.id(key), runId, words };
    await seeder.call('createRemark', { ...remark, fileHash: null, shows: null }, { daysAgo, by });
  }
}
