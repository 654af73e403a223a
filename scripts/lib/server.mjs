// @ts-check
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { CLIENT, COMPILED, ROOT } from './paths.mjs';

/**
 * Launches the server and waits until it listens.
 * @param {{ url: string, port: number, files: string, host?: string, simulator?: string, env?: Record<string, string> }} options
 */
export function launchServer({ url, port, files, host = '127.0.0.1', simulator, env = {} }) {
  return launch('serve', /UNTO LISTENS ON (\S+)/, {
    DATABASE_URL: url,
    UNTO_PORT: String(port),
    UNTO_HOST: host,
    UNTO_CLIENT: CLIENT,
    UNTO_FILES: files,
    ...(simulator ? { UNTO_SIMULATOR: simulator } : {}),
    ...env,
  });
}

/** Launches the simulated devices on a free loopback port. */
export function launchSimulators() {
  return launch('simulators', /SIMULATORS LISTEN ON (\S+)/, { UNTO_SIMULATOR_PORT: '0' });
}

/**
 * @param {string} script @param {RegExp} listens what it prints once it listens, its address in the first group
 * @param {Record<string, string>} env
 */
function launch(script, listens, env) {
  const child = spawn(process.execPath, ['--enable-source-maps', join(COMPILED, `${script}.js`)], {
    cwd: ROOT,
    detached: true,
    stdio: ['ignore', 'pipe', 'inherit'],
    env: { ...process.env, ...env },
  });
  const ended = new Promise((resolve) => child.once('exit', (code) => resolve(code)));
  const address = new Promise((resolve, reject) => {
    child.stdout.on('data', (/** @type {Buffer} */ chunk) => {
      const found = listens.exec(chunk.toString());
      if (found) resolve(found[1]);
    });
    child.once('exit', (code) => reject(new Error(`${script} stopped before it listened (code ${code}).`)));
  });
  return {
    ended,
    address: /** @type {Promise<string>} */ (address),
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
