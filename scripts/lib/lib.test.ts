import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { startsAgain } from './again.mjs';
import { freePort } from './cluster.mjs';
import { takeLock } from './lock.mjs';
import { newestChange, ROOT } from './paths.mjs';
import { testShare } from './test-share.mjs';

let folder = '';
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'unto-lib-'));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

describe('lock of the state folder', () => {
  it('is taken, tells where the server is, and is given back', () => {
    const lock = takeLock(folder);
    lock.tell({ address: 'http://127.0.0.1:4780', databasePort: 5478 });
    expect(JSON.parse(readFileSync(join(folder, 'lock.json'), 'utf8'))).toEqual({
      pid: process.pid,
      address: 'http://127.0.0.1:4780',
      databasePort: 5478,
    });
    lock.release();
    expect(existsSync(join(folder, 'lock.json'))).toBe(false);
  });

  it.each([
    ['a process that is gone', '{"pid": 4194300, "address": null}'],
    ['a number that another program took since', `{"pid": ${process.pid}, "address": null}`],
    ['a file cut short', '{"pid": 4'],
  ])('is taken over from %s', (_what, content) => {
    writeFileSync(join(folder, 'lock.json'), content);
    expect(() => takeLock(folder).release()).not.toThrow();
  });
});

describe('what ends by itself', () => {
  it('is started again five times in ten minutes, and again after them', () => {
    const again = startsAgain();
    expect([1, 2, 3, 4, 5, 6].map((second) => again(second * 1000))).toEqual([true, true, true, true, true, false]);
    expect(again(11 * 60_000)).toBe(true);
  });
});

describe('ports and files', () => {
  it('takes the wanted port when it is free and another when not', async () => {
    const taken: Server = createServer();
    await new Promise<void>((resolve) => taken.listen(0, '127.0.0.1', resolve));
    const { port } = taken.address() as { port: number };
    expect(await freePort(port)).not.toBe(port);
    await new Promise((resolve) => taken.close(resolve));
    expect(await freePort(port)).toBe(port);
  });

  it('sees the newest change below folders', () => {
    const before = newestChange([folder]);
    writeFileSync(join(folder, 'new.ts'), '');
    expect(newestChange([folder])).toBeGreaterThan(before);
  });

  it('counts tests among all code', () => {
    const { tests, all } = testShare();
    expect(tests).toBeGreaterThan(1000);
    expect(all).toBeGreaterThan(tests);
  });
});

describe('documents and code agree', () => {
  it('every reference test stands in docs/sources.md', async () => {
    const sources = readFileSync(join(ROOT, 'docs/sources.md'), 'utf8');
    const files = readdirSync(join(ROOT, 'core'), { recursive: true, encoding: 'utf8' }).filter((name) =>
      name.endsWith('.reference.test.ts'),
    );
    expect(files.length).toBeGreaterThan(5);
    for (const file of files.map((name) => `core/${name}`)) expect(sources).toContain(file);
  });

  it('every path that docs/sources.md names exists', () => {
    const sources = readFileSync(join(ROOT, 'docs/sources.md'), 'utf8');
    for (const [, path] of sources.matchAll(/`((?:core|server|demo)\/[\w./-]+)`/g))
      expect(existsSync(join(ROOT, path!)), path).toBe(true);
  });

  it('every picture is linked from the README', () => {
    const readme = readFileSync(join(ROOT, 'README.md'), 'utf8');
    const linked = [...readme.matchAll(/docs\/screenshots\/[\w-]+\.png/g)].map(([path]) => path);
    expect(linked.length).toBeGreaterThan(10);
    for (const path of linked) expect(existsSync(join(ROOT, path)), path).toBe(true);
  });
});
