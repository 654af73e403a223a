// @ts-check
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { CLIENT, ROOT } from './paths.mjs';

/**
 * Launches the server and waits until it listens.
 * @param {{ url: string, port: number, files: string, host?: string, env?: Record<string, string> }} options
 */
export function launchServer({ url, port, files, host = '127.0.0.1', env = {} }) {
  const child = spawn(process.execPath, ['--import', 'tsx', join(ROOT, 'scripts/serve.ts')], {
    cwd: ROOT,
    detached: true,
    stdio: ['ignore', 'pipe', 'inherit'],
    env: {
      ...process.env,
      DATABASE_URL: url,
      UNTO_PORT: String(port),
      UNTO_HOST: host,
      UNTO_CLIENT: CLIENT,
      UNTO_FILES: files,
      ...env,
    },
  });
  const ended = new Promise((resolve) => child.once('exit', (code) => resolve(code)));
  const address = new Promise((resolve, reject) => {
    child.stdout.on('data', (/** @type {Buffer} */ chunk) => {
      const found = /UNTO LISTENS ON (\S+)/.exec(chunk.toString());
      if (found) resolve(found[1]);
    });
    child.once('exit', (code) => reject(new Error(`The server stopped before it listened (code ${code}).`)));
  });
  return {
    ended,
    address: /** @type {Promise<string>} */ (address),
    stop: async () => {
      if (child.exitCode === null) child.kill('SIGTERM');
      await ended;
    },
  };
}
