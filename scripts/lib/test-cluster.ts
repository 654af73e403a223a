import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type {} from 'vitest';
import type { TestProject } from 'vitest/node';
import { startCluster } from './cluster.mjs';

declare module 'vitest' {
  export interface ProvidedContext {
    databaseUrl: string;
    databasePort: number;
    databaseFolder: string;
  }
}

/** A throw-away PostgreSQL cluster on a free port for a project's tests; nothing is left of it. */
export default async function setup(project: TestProject): Promise<() => void> {
  const folder = mkdtempSync(join(tmpdir(), 'unto-test-'));
  const cluster = await startCluster({ folder, durable: false });
  project.provide('databaseUrl', cluster.adminUrl);
  project.provide('databasePort', cluster.port);
  project.provide('databaseFolder', folder);
  return () => {
    cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  };
}
