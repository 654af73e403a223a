import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { randomUUID } from 'node:crypto';
import { PLAIN_SETTING } from '@unto/core';
import { ROOT } from '../lib/paths.mjs';

/** What a trial found, one row of the table. */
export interface Finding {
  readonly trial: string;
  readonly tried: string;
  readonly found: string;
  /** Null where it could not be tried here. */
  readonly held: boolean | null;
}

interface Lock {
  readonly pid: number;
  readonly server: number;
  readonly address: string;
  readonly databasePort: number;
}

export const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** A throw-away installation, started as `npm start` does. */
export class Installation {
  readonly folder: string;
  readonly #env: Record<string, string>;
  #child: ChildProcess | undefined;
  #operator = '';

  constructor(env: Record<string, string> = {}, folder = mkdtempSync(join(tmpdir(), 'unto-torture-'))) {
    this.folder = folder;
    this.#env = env;
  }

  async start(more: Record<string, string> = {}): Promise<void> {
    const env = {
      UNTO_STATE_DIR: this.folder,
      UNTO_PORT: '0',
      UNTO_CALLS_PER_MINUTE: '1000000',
      ...this.#env,
      ...more,
    };
    this.#child = spawn(process.execPath, [join(ROOT, 'scripts/start.mjs')], {
      env: { ...process.env, ...env },
      stdio: 'ignore',
    });
    await this.up(180_000);
    const operators = (await this.call('GET', '/api/operators')).body as { id: string }[];
    this.#operator = operators[0]?.id ?? randomUUID();
    if (!operators.length)
      await this.call('POST', '/api/operators', { id: this.#operator, name: 'Trial', role: 'lead' });
  }

  get lock(): Lock {
    return JSON.parse(readFileSync(join(this.folder, 'lock.json'), 'utf8')) as Lock;
  }

  get postmaster(): number {
    return Number(readFileSync(join(this.folder, 'postgres/postmaster.pid'), 'utf8').split('\n')[0]);
  }

  /** Waits until it answers; how long that took, ms. */
  async up(withinMs = 60_000): Promise<number> {
    const begun = performance.now();
    while (performance.now() - begun < withinMs && this.#child?.exitCode === null) {
      try {
        if ((await fetch(`${this.lock.address}/api/health`, { signal: AbortSignal.timeout(2000) })).ok)
          return performance.now() - begun;
      } catch {
        // Not yet.
      }
      await pause(100);
    }
    throw new Error(`It did not come up within ${withinMs / 1000} s, or ended.`);
  }

  /** A call; status 0 where nobody answered. */
  // eslint-disable-next-line @typescript-eslint/no-explicit-any -- whatever a route answers
  async call(method: string, path: string, body?: object): Promise<{ status: number; body: any }> {
    try {
      const response = await fetch(this.lock.address + path, {
        method,
        headers: { 'content-type': 'application/json', 'x-unto-operator': this.#operator },
        ...(body ? { body: JSON.stringify(body) } : {}),
        signal: AbortSignal.timeout(30_000),
      });
      return { status: response.status, body: await response.json().catch(() => null) };
    } catch {
      return { status: 0, body: null };
    }
  }

  async stop(): Promise<void> {
    const child = this.#child;
    if (!child || child.exitCode !== null || child.signalCode !== null) return;
    const ended = new Promise((resolve) => child.once('exit', resolve));
    child.kill('SIGTERM');
    await ended;
  }

  async remove(): Promise<void> {
    await this.stop();
    rmSync(this.folder, { recursive: true, force: true });
  }
}

/** A stated setting: the smallest thing that is written. */
export function smallWrite() {
  return {
    ...{
      id: randomUUID(),
      title: 'A trial',
      family: 'glass',
      wavelengthClass: 'co2',
      ratedW: null,
      topSpeedMmPerS: null,
    },
    ...{ power: null, speed: null, interval: null, ...PLAIN_SETTING, source: 'nobody', note: '' },
  };
}
