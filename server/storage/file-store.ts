import { createHash, randomUUID } from 'node:crypto';
import { mkdir, open, readdir, readFile, rename, rm, stat, statfs, utimes, writeFile } from 'node:fs/promises';
import { join } from 'node:path';

/** Where file contents are kept, by the SHA-256 of what is in them. Another kind of storage can stand behind this. */
export interface FileStore {
  /** Keeps a content; flushed to the disk when it answers. */
  put(bytes: Uint8Array): Promise<string>;
  /** The content, or null when it is not there. */
  get(hash: string): Promise<Buffer | null>;
  /** Share of the disk that is free, 0 to 1; null where that cannot be told. */
  freeShare(): Promise<number | null>;
  /**
   * Sets aside what no row has named for days, and removes what was set aside for weeks. Only where the store belongs to this
   * installation: another's files are never touched, nor is anything new.
   * @returns how many were set aside
   */
  sweep(installation: string, known: ReadonlySet<string>): Promise<number>;
}

/** A content that no row names is set aside after so many days: its row may still be on its way, or its server may. */
const UNNAMED_DAYS = 7;
/** What was set aside is removed after so many more. Until then it comes back when it is asked for. */
const ASIDE_DAYS = 30;
const DAY_MS = 24 * 3600 * 1000;
const HASH = /^[0-9a-f]{64}$/;
const HALF = /^\.[0-9a-f-]{36}$/;

/** Files in a folder, one a content, for its owner alone. @param now milliseconds since 1970 */
export function folderStore(folder: string, now: () => number = Date.now): FileStore {
  const place = (hash: string) => join(folder, hash);
  const aside = join(folder, 'aside');
  const read = (path: string) =>
    readFile(path).catch((error: NodeJS.ErrnoException) => {
      if (error.code === 'ENOENT') return null;
      throw error;
    });
  return {
    async put(bytes) {
      await mkdir(folder, { recursive: true, mode: 0o700 });
      const hash = createHash('sha256').update(bytes).digest('hex');
      await writeWhole(join(folder, `.${randomUUID()}`), place(hash), bytes);
      return hash;
    },
    async get(hash) {
      const found = await read(place(hash));
      if (found) return found;
      const setAside = await read(join(aside, hash));
      if (setAside) await rename(join(aside, hash), place(hash));
      return setAside;
    },
    async freeShare() {
      const disk = await statfs(folder).catch(() => null);
      return disk && disk.blocks > 0 ? disk.bavail / disk.blocks : null;
    },
    async sweep(installation, known) {
      const names = await readdir(folder).catch(() => [] as string[]);
      if (!(await belongsTo(folder, installation, { names, known }))) return 0;
      const olderThan = async (path: string, days: number) => now() - (await stat(path)).mtimeMs > days * DAY_MS;
      let moved = 0;
      for (const name of names) {
        if (HALF.test(name) && (await olderThan(place(name), 1))) await rm(place(name), { force: true });
        if (!HASH.test(name) || known.has(name) || !(await olderThan(place(name), UNNAMED_DAYS))) continue;
        await mkdir(aside, { recursive: true, mode: 0o700 });
        const today = new Date(now());
        await utimes(place(name), today, today);
        await rename(place(name), join(aside, name));
        moved += 1;
      }
      for (const name of await readdir(aside).catch(() => [] as string[]))
        if (await olderThan(join(aside, name), ASIDE_DAYS)) await rm(join(aside, name), { force: true });
      return moved;
    },
  };
}

/** Written beside and renamed, so that a name never stands for half a content; what could not be written leaves nothing. */
async function writeWhole(half: string, whole: string, bytes: Uint8Array): Promise<void> {
  try {
    const file = await open(half, 'w', 0o600);
    try {
      await file.writeFile(bytes);
      await file.sync();
    } finally {
      await file.close();
    }
    await rename(half, whole);
  } catch (error) {
    await rm(half, { force: true });
    throw error;
  }
}

/** A folder says whose it is. One that says nothing is taken by whoever knows some of its files, or finds it empty. */
async function belongsTo(
  folder: string,
  installation: string,
  { names, known }: { readonly names: readonly string[]; readonly known: ReadonlySet<string> },
): Promise<boolean> {
  const mark = join(folder, 'installation');
  const owner = await readFile(mark, 'utf8').catch(() => null);
  if (owner !== null) return owner.trim() === installation;
  const contents = names.filter((name) => HASH.test(name));
  if (contents.length && !contents.some((name) => known.has(name))) return false;
  await mkdir(folder, { recursive: true, mode: 0o700 });
  await writeFile(mark, `${installation}\n`, { mode: 0o600 });
  return true;
}
