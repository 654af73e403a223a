import { createHash, randomUUID } from 'node:crypto';
import { mkdir, open, readdir, readFile, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';

/** Where file contents are kept, by the SHA-256 of what is in them. Another kind of storage can stand behind this. */
export interface FileStore {
  /** Keeps a content; flushed to the disk when it answers. */
  put(bytes: Uint8Array): Promise<string>;
  /** The content, or null when it is not there. */
  get(hash: string): Promise<Buffer | null>;
  /** Removes what no row names; answers how many went. */
  sweep(known: ReadonlySet<string>): Promise<number>;
}

/** Files in a folder, one a content. */
export function folderStore(folder: string): FileStore {
  const place = (hash: string) => join(folder, hash);
  return {
    async put(bytes) {
      await mkdir(folder, { recursive: true });
      const hash = createHash('sha256').update(bytes).digest('hex');
      // Written beside and renamed, so that a name never stands for half a content.
      const half = join(folder, `.${randomUUID()}`);
      const file = await open(half, 'w');
      try {
        await file.writeFile(bytes);
        await file.sync();
      } finally {
        await file.close();
      }
      await rename(half, place(hash));
      return hash;
    },
    async get(hash) {
      return readFile(place(hash)).catch((error: NodeJS.ErrnoException) => {
        if (error.code === 'ENOENT') return null;
        throw error;
      });
    },
    async sweep(known) {
      const names = await readdir(folder).catch(() => [] as string[]);
      const orphans = names.filter((entry) => !known.has(entry));
      for (const orphan of orphans) await rm(place(orphan), { force: true });
      return orphans.length;
    },
  };
}
