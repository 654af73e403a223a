// @ts-check
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, openSync, closeSync, readFileSync, renameSync, statSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { CLIENT, COMPILED, ROOT } from './paths.mjs';

/**
 * Launches the server and waits until it listens.
 * @param {{ url: string, port: number, files: string, host?: string, simulator?: string | undefined, lock?: number,
 *   logs?: string, env?: Record<string, string> }} options lock: the state folder's, held by the server too; logs: folder of its logs
 */
export function launchServer({ url, port, files, host = '127.0.0.1', simulator, lock, logs, env = {} }) {
  return launch(
    'serve',
    /UNTO LISTENS ON (\S+)/,
    {
      DATABASE_URL: url,
      UNTO_PORT: String(port),
      UNTO_HOST: host,
      UNTO_CLIENT: CLIENT,
      UNTO_FILES: files,
      ...(simulator ? { UNTO_SIMULATOR: simulator } : {}),
      ...(logs ? { UNTO_LOG_FILE: logFile(logs) } : {}),
      ...env,
    },
    { lock, output: logs && join(logs, 'output.log') },
  );
}

/** Where the server logs, below a folder of logs. */
export const logFile = (/** @type {string} */ logs) => join(logs, 'server.log');

/** Launches the simulated devices on a free loopback port. */
export function launchSimulators() {
  return launch('simulators', /SIMULATORS LISTEN ON (\S+)/, { UNTO_SIMULATOR_PORT: '0' });
}

/**
 * Launches a program that ends when this one does, however this one goes: it ends when its input does.
 * @param {string} script @param {RegExp} listens what it prints once it listens, its address in the first group
 * @param {Record<string, string>} env
 * @param {{ lock?: number | undefined, output?: string | undefined }} handedOn an open file to keep open; where its last words go
 */
function launch(script, listens, env, { lock, output } = {}) {
  const words = output === undefined ? 'inherit' : openOutput(output);
  const from = output === undefined ? 0 : statSync(output).size;
  const child = spawn(process.execPath, ['--enable-source-maps', join(COMPILED, `${script}.js`)], {
    cwd: ROOT,
    detached: true,
    stdio: ['pipe', 'pipe', words, ...(lock === undefined ? [] : [lock])],
    env: { ...process.env, UNTO_ENDS_WITH_INPUT: 'yes', ...env },
  });
  if (typeof words === 'number') closeSync(words);
  const ended = new Promise((resolve) => child.once('exit', (code, signal) => resolve(code ?? signal)));
  /** @type {Promise<string>} */
  const address = new Promise((resolve, reject) => {
    child.stdout?.on('data', (/** @type {Buffer} */ chunk) => {
      const found = listens.exec(chunk.toString());
      if (found) resolve(/** @type {string} */ (found[1]));
    });
    child.once('exit', () => reject(new Error(lastWords(output, from) || `${script} stopped before it listened.`)));
  });
  // Whoever stops it before it listens is not waiting for the address any more.
  address.catch(() => undefined);
  return {
    pid: child.pid,
    ended,
    address,
    lastWords: () => lastWords(output, from),
    stop: async () => {
      if (child.exitCode === null) child.kill('SIGTERM');
      await ended;
    },
    /** At once, as when the power goes. */
    kill: async () => {
      child.kill('SIGKILL');
      await ended;
    },
  };
}

const MOST_OUTPUT = 1_000_000;

/** What a program says before it can log, appended; the file before it is kept once. */
function openOutput(/** @type {string} */ file) {
  mkdirSync(dirname(file), { recursive: true, mode: 0o700 });
  if (existsSync(file) && statSync(file).size > MOST_OUTPUT) renameSync(file, `${file}.1`);
  return openSync(file, 'a', 0o600);
}

/** Why it ended, as it said itself; empty where it could not say (killed). */
function lastWords(/** @type {string | undefined} */ file, /** @type {number} */ from) {
  if (!file || !existsSync(file)) return '';
  const said = readFileSync(file).subarray(from).toString();
  return [...said.matchAll(/^UNTO ENDS: (.*)$/gm)].at(-1)?.[1] ?? '';
}
