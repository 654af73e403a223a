// @ts-check
// Type check of every workspace, two at a time.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { ROOT } from './lib/paths.mjs';

const bin = (/** @type {string} */ name) => join(ROOT, 'node_modules/.bin', name);
const waiting = [
  [bin('vue-tsc'), '--noEmit', '-p', 'web'],
  ...['core', 'contract', 'domain', 'simulators', 'server', 'demo', 'e2e', 'scripts'].map((name) => [
    bin('tsc'),
    '-p',
    name,
  ]),
];
let failed = false;

async function worker() {
  for (let task = waiting.shift(); task; task = waiting.shift()) {
    const [command, ...args] = /** @type {[string, ...string[]]} */ (task);
    const code = await new Promise((resolve) =>
      spawn(command, args, { cwd: ROOT, stdio: 'inherit' }).once('exit', resolve),
    );
    failed ||= code !== 0;
  }
}

await Promise.all([worker(), worker()]);
process.exit(failed ? 1 : 0);
