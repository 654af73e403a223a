import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ROOT } from '../lib/paths.mjs';
import type { Finding } from './installation.js';

/** The hostile requests of the tests, many more of them for each route. */
export function hostile(runs: number): Finding[] {
  const { stdout, status } = spawnSync(
    process.execPath,
    [
      join(ROOT, 'node_modules/vitest/vitest.mjs'),
      'run',
      '--project',
      'api',
      '--reporter',
      'json',
      'server/http/hostile',
    ],
    { cwd: ROOT, encoding: 'utf8', maxBuffer: 1e8, env: { ...process.env, UNTO_HOSTILE_RUNS: String(runs) } },
  );
  const report = JSON.parse(stdout.slice(stdout.indexOf('{'))) as { numTotalTests: number; numFailedTests: number };
  return [
    {
      trial: 'hostile bodies',
      tried: `${runs} requests made from its schema, bent, spoilt or hostile, to every route; broken requests by hand`,
      found: `${report.numTotalTests} kinds, ${report.numFailedTests} with an answer that nobody foresaw`,
      held: status === 0 && report.numFailedTests === 0,
    },
  ];
}
