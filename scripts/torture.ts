import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { underLoad } from './bench/load.js';
import { clocks } from './torture/clocks.js';
import { fullDisk } from './torture/full-disk.js';
import { hostile } from './torture/hostile.js';
import type { Finding } from './torture/installation.js';
import { kills } from './torture/kills.js';
import { races } from './torture/races.js';
import { restores } from './torture/restores.js';

/** Trials by name, each on throw-away installations of its own; all together take about ten minutes. */
const TRIALS: Record<string, () => Finding[] | Promise<Finding[]>> = {
  kills: () => kills(24),
  races: () => races(60),
  restores,
  'full-disk': fullDisk,
  clocks,
  hostile: () => hostile(150),
  load,
};

async function load(): Promise<Finding[]> {
  const folder = mkdtempSync(join(tmpdir(), 'unto-torture-'));
  chmodSync(folder, 0o711);
  try {
    return (await underLoad(folder)).map(({ what, figure, goal, met }) => ({
      trial: 'load',
      tried: `${what} (${goal})`,
      found: figure,
      held: met,
    }));
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

const cell = (text: string) => text.replaceAll('|', '/');
const WORD = new Map([
  [true, 'held'],
  [false, 'FAILED'],
  [null, 'not tried'],
]);

async function main(): Promise<void> {
  const names = process.argv.slice(2);
  const strange = names.filter((name) => !(name in TRIALS));
  if (strange.length) throw new Error(`No trial is called ${strange.join(', ')}: ${Object.keys(TRIALS).join(', ')}.`);
  const findings: Finding[] = [];
  for (const name of names.length ? names : Object.keys(TRIALS)) {
    process.stderr.write(`${name} …\n`);
    findings.push(...(await TRIALS[name]!()));
  }
  process.stdout.write('| Trial | Tried | Found | |\n|---|---|---|---|\n');
  for (const { trial, tried, found, held } of findings)
    process.stdout.write(`| ${[trial, tried, found, WORD.get(held)!].map(cell).join(' | ')} |\n`);
  if (findings.some(({ held }) => held === false)) process.exitCode = 1;
}

main().catch((error: unknown) => {
  process.stderr.write(`${(error as Error).message}\n`);
  process.exit(1);
});
