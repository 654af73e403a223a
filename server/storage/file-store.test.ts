import { randomUUID } from 'node:crypto';
import { mkdtempSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { folderStore, type FileStore } from './file-store.js';

const DAY_MS = 24 * 3600 * 1000;
const OURS = randomUUID();
let folder: string;
let now: number;
let store: FileStore;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'unto-store-'));
  now = Date.now();
  store = folderStore(folder, () => now);
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));
const later = (days: number) => (now += days * DAY_MS);
const put = (text: string) => store.put(Buffer.from(text));

describe('kept files', () => {
  it('are for their owner alone, whole or not there, and come back as they were', async () => {
    const hash = await put('sheet');
    expect(statSync(join(folder, hash)).mode & 0o777).toBe(0o600);
    expect((await store.get(hash))!.toString()).toBe('sheet');
    expect(await store.get('b'.repeat(64))).toBeNull();
    expect(readdirSync(folder)).toEqual([hash]);
  });

  it('that no row names are set aside after days, come back when asked for, and go only weeks later', async () => {
    const [named, orphan] = [await put('named'), await put('orphan')];
    const known = new Set([named]);
    expect(await store.sweep(OURS, known)).toBe(0);
    later(8);
    expect(await store.sweep(OURS, known)).toBe(1);
    expect((await store.get(orphan))!.toString()).toBe('orphan');
    later(8);
    expect(await store.sweep(OURS, known)).toBe(1);
    later(20);
    await store.sweep(OURS, known);
    expect(readdirSync(join(folder, 'aside'))).toEqual([orphan]);
    later(11);
    await store.sweep(OURS, known);
    expect(await store.get(orphan)).toBeNull();
    expect((await store.get(named))!.toString()).toBe('named');
  });

  it('are not touched by a server on another database, however old', async () => {
    const hash = await put('theirs');
    await store.sweep(OURS, new Set([hash]));
    later(1000);
    expect(await store.sweep(randomUUID(), new Set())).toBe(0);
    expect((await store.get(hash))!.toString()).toBe('theirs');
  });

  it('of a folder that says not whose it is are not touched by a database that knows none of them', async () => {
    const hash = await put('from before');
    later(1000);
    expect(await store.sweep(randomUUID(), new Set())).toBe(0);
    expect(await store.sweep(OURS, new Set([hash]))).toBe(0);
    // Now it is ours: what nobody names is set aside, nothing else in the folder.
    writeFileSync(join(folder, 'a-note.txt'), 'x');
    const orphan = await put('orphan');
    later(8);
    expect(await store.sweep(OURS, new Set([hash]))).toBe(1);
    expect(readdirSync(folder).sort()).toEqual(['a-note.txt', 'aside', hash, 'installation'].sort());
    expect(readdirSync(join(folder, 'aside'))).toEqual([orphan]);
  });

  it('half written leave nothing behind', async () => {
    const broken = folderStore(join(folder, 'a-file'));
    writeFileSync(join(folder, 'a-file'), '');
    await expect(broken.put(Buffer.from('x'))).rejects.toThrow();
    writeFileSync(join(folder, `.${randomUUID()}`), 'half');
    await store.sweep(OURS, new Set());
    expect(readdirSync(folder).filter((name) => name.startsWith('.'))).toHaveLength(1);
    later(2);
    await store.sweep(OURS, new Set());
    expect(readdirSync(folder).filter((name) => name.startsWith('.'))).toHaveLength(0);
  });
});
