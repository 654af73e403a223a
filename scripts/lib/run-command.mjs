// @ts-check
import { spawnSync } from 'node:child_process';
import { ROOT } from './paths.mjs';

/** Runs a command. @throws Error naming the program and what it said last; all it said stands before it */
export function run(
  /** @type {string} */ command,
  /** @type {string[]} */ args,
  /** @type {import('node:child_process').SpawnSyncOptions} */ options = {},
) {
  const result = spawnSync(command, args, {
    cwd: ROOT,
    encoding: 'utf8',
    stdio: ['ignore', 'pipe', 'pipe'],
    ...options,
  });
  if (/** @type {NodeJS.ErrnoException | undefined} */ (result.error)?.code === 'ENOENT')
    throw new Error(`The program ${command} is missing. Nothing was started: install it, and start again.`);
  if (result.error || result.status !== 0) {
    process.stderr.write(`${result.stdout ?? ''}${result.stderr ?? ''}\n`);
    throw new Error(`${command} failed${result.error ? `: ${result.error.message}` : `, as it says above`}.`);
  }
  return String(result.stdout ?? '');
}
