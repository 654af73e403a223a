import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { startCluster } from './cluster.mjs';
import { ROOT } from './paths.mjs';

let folder = '';
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'unto-cluster-'));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const FIRST_START = `import('${join(ROOT, 'scripts/lib/cluster.mjs')}').then(({ startCluster }) => startCluster({ folder: process.argv[1], durable: false }))`;

describe('a first start', () => {
  it('that is killed at any moment keeps no later one from starting', async () => {
    for (const ms of [150, 400, 800, 1300]) {
      const child = spawn(process.execPath, ['-e', FIRST_START, folder], { detached: true, stdio: 'ignore' });
      const ended = new Promise((resolve) => child.once('exit', resolve));
      await new Promise((resolve) => setTimeout(resolve, ms));
      // The whole group, as when the power goes.
      if (child.exitCode === null) process.kill(-child.pid!, 'SIGKILL');
      await ended;
    }
    const cluster = await startCluster({ folder, durable: false });
    expect(statSync(join(folder, 'database-password')).mode & 0o777).toBe(0o600);
    expect(cluster.url).toMatch(/^postgres:\/\/unto_server:[0-9a-f]{48}@127\.0\.0\.1:\d+\/postgres$/);
    cluster.stop();
  }, 60_000);
});
