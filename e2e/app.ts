import { randomUUID } from 'node:crypto';
import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { afterAll, afterEach, beforeAll, inject } from 'vitest';
import type {} from '../scripts/lib/test-cluster.js';
import { launchServer, launchSimulators } from '../scripts/lib/server.mjs';
import { openBrowser, type Browser } from './browser.js';
import { Page } from './page.js';

/** A server on an empty database with the demo, a browser on it, and a way to look into PostgreSQL. */
export interface App {
  readonly browser: Browser;
  readonly page: Page;
  readonly base: string;
  /** Its database, and the folder of its kept files. */
  readonly database: string;
  readonly files: string;
  sql<T = Record<string, any>>(query: string): Promise<T[]>;
  stopServer(): Promise<void>;
  /** At once, as when the power goes. */
  killServer(): Promise<void>;
  /** Starts it again, its clock ahead by some seconds. */
  startServer(aheadS?: number): Promise<void>;
  /** Sets something of the simulated devices, as a person would on their own page. */
  deviceIs(what: string, choice: string): Promise<void>;
  /** Address of the simulated devices. */
  readonly devices: string;
  close(): Promise<void>;
}

/** An application with the demo, or on an empty workshop. */
interface AppOptions {
  readonly demo?: boolean;
}

/** The database every application is copied from: the demo is loaded into it once a run. */
const TEMPLATE = 'demo_template';

async function template(admin: pg.Client): Promise<string> {
  const { rows } = await admin.query('SELECT 1 FROM pg_database WHERE datname = $1', [TEMPLATE]);
  if (rows.length) return TEMPLATE;
  await admin.query(`CREATE DATABASE ${TEMPLATE}`);
  const server = launchServer({ url: databaseUrl(TEMPLATE), port: 0, files: templateFiles() });
  await server.address;
  await server.stop();
  return TEMPLATE;
}

/** Files of the template; they go with the cluster's folder when all is over. */
function templateFiles(): string {
  return join(inject('databaseFolder'), 'template-files');
}

function databaseUrl(name: string): string {
  return inject('databaseUrl').replace(/\/postgres$/, `/${name}`);
}

async function openApp({ demo = true }: AppOptions = {}): Promise<App> {
  const name = `e${randomUUID().replaceAll('-', '')}`;
  const admin = new pg.Client(inject('databaseUrl'));
  await admin.connect();
  // Files run two at a time: one makes the template, the other waits. The lock goes with the connection.
  await admin.query('SELECT pg_advisory_lock(4782)');
  await admin.query(demo ? `CREATE DATABASE ${name} TEMPLATE ${await template(admin)}` : `CREATE DATABASE ${name}`);
  await admin.end();
  const url = databaseUrl(name);
  const files = mkdtempSync(join(tmpdir(), 'unto-files-'));
  if (demo) cpSync(templateFiles(), files, { recursive: true });
  const simulators = launchSimulators();
  const devices = await simulators.address;
  const empty: Record<string, string> = demo ? {} : { UNTO_DEMO: 'no' };
  let server = launchServer({ url, port: 0, files, simulator: devices, env: empty });
  const base = await server.address;
  const browser = await openBrowser();
  const pool = new pg.Pool({ connectionString: url });
  pool.on('error', () => undefined);
  return {
    browser,
    page: new Page(browser, base),
    base,
    database: url,
    files,
    sql: async <T>(query: string) => (await pool.query(query)).rows as T[],
    stopServer: () => server.stop(),
    killServer: () => server.kill(),
    devices,
    deviceIs: async (what, choice) => {
      const body = new URLSearchParams({ choice });
      const { status } = await fetch(`${devices}/${what}`, { method: 'POST', body, redirect: 'manual' });
      if (status !== 303) throw new Error(`The devices answered ${status} to “${choice}” for ${what}.`);
    },
    startServer: async (aheadS = 0) => {
      const env = { UNTO_CLOCK_AHEAD_S: String(aheadS) };
      server = launchServer({ url, port: Number(new URL(base).port), files, simulator: devices, env });
      await server.address;
    },
    close: async () => {
      await browser.close();
      await pool.end();
      await server.stop();
      await simulators.stop();
      rmSync(files, { recursive: true, force: true });
    },
  };
}

/** An application for all tests of a file: opened before them, closed after; a failed test leaves a picture and the console's words. */
export function useApp(options?: AppOptions): App {
  let app: App | undefined;
  beforeAll(async () => {
    app = await openApp(options);
  });
  afterEach(async ({ task }) => {
    if (task.result?.state !== 'fail' || !app) return;
    const picture = await app.page.picture(task.name.replaceAll(/\W+/g, '-'));
    console.log(`picture: ${picture}\n${(await app.browser.severe()).join('\n')}`);
  });
  afterAll(() => app?.close());
  return new Proxy({} as App, { get: (_, key) => Reflect.get(app!, key) as unknown });
}
