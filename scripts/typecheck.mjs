// @ts-check
// Type check of every workspace in three programs, two at a time: what knows no platform, what runs on Node, the client.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { ROOT } from './lib/paths.mjs';

const bin = (/** @type {string} */ name) => join(ROOT, 'node_modules/.bin', name);
const waiting = [
  [bin('vue-tsc'), '--noEmit', '-p', 'web'],
  [bin('tsc'), '-p', 'tsconfig.pure.json'],
  [bin('tsc'), '-p', 'tsconfig.node.json'],
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
