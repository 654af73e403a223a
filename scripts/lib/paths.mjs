// @ts-check
import { accessSync, constants, mkdirSync, readdirSync, statSync } from 'node:fs';
import { homedir } from 'node:os';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

export const ROOT = resolve(dirname(fileURLToPath(import.meta.url)), '../..');
export const CLIENT = join(ROOT, 'web/dist');
/** Server and simulators as JavaScript. */
export const COMPILED = join(ROOT, 'dist');
export const isRoot = () => process.getuid?.() === 0;

/** Folder for database, pictures and lock: UNTO_STATE_DIR, or /var/lib/unto for root, or ~/.local/state/unto. */
export function stateFolder() {
  const folder = resolve(
    process.env.UNTO_STATE_DIR ?? (isRoot() ? '/var/lib/unto' : join(homedir(), '.local/state/unto')),
  );
  try {
    mkdirSync(folder, { recursive: true });
    accessSync(folder, constants.R_OK | constants.W_OK | constants.X_OK);
    return folder;
  } catch (error) {
    const { code } = /** @type {NodeJS.ErrnoException} */ (error);
    const why = WHY[code ?? ''] ?? code;
    throw new Error(
      `The state folder ${folder} cannot be used: ${why}. Nothing was started: name another with UNTO_STATE_DIR.`,
    );
  }
}

/** @type {Record<string, string>} */
const WHY = {
  EEXIST: 'a file stands in its place',
  ENOTDIR: 'a file stands in its way',
  EACCES: 'you may not write there',
  EROFS: 'its disk is read only',
  ENOSPC: 'its disk is full',
};

/** Logs below a state folder. */
export const logsFolder = (/** @type {string} */ state) => join(state, 'log');

/** Kept files (data sheets, later pictures) below a state folder. */
export const filesFolder = (/** @type {string} */ state) => join(state, 'files');

/** Time of the newest file below some folders, node_modules and dist left out. */
export function newestChange(/** @type {string[]} */ folders) {
  let newest = 0;
  const visit = (/** @type {string} */ path) => {
    const stat = statSync(path);
    if (!stat.isDirectory()) newest = Math.max(newest, stat.mtimeMs);
    else
      for (const name of readdirSync(path))
        if (!['node_modules', 'dist', '.vite'].includes(name)) visit(join(path, name));
  };
  folders.forEach(visit);
  return newest;
}
