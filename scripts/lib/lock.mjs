// @ts-check
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** Takes the state folder for this process, so that two servers never share it. Throws with the other's address when it is taken. */
export function takeLock(/** @type {string} */ folder) {
  const file = join(folder, 'lock.json');
  for (let attempt = 0; attempt < 2; attempt += 1) {
    try {
      writeFileSync(file, JSON.stringify({ pid: process.pid, address: null }), { flag: 'wx' });
      return {
        setAddress: (/** @type {string} */ address, /** @type {number | undefined} */ databasePort) =>
          writeFileSync(file, JSON.stringify({ pid: process.pid, address, databasePort })),
        release: () => rmSync(file, { force: true }),
      };
    } catch (error) {
      if (/** @type {NodeJS.ErrnoException} */ (error).code !== 'EEXIST') throw error;
      const holder = holderOf(folder);
      if (holder) {
        throw new Error(
          `Unto runs already on this state folder (${folder}), process ${holder.pid}${holder.address ? `, at ${holder.address}` : ''}.`,
        );
      }
      rmSync(file, { force: true });
    }
  }
  throw new Error(`The lock ${file} cannot be taken.`);
}

/** The start of Unto that holds a state folder just now; null where none does. */
export function holderOf(/** @type {string} */ folder) {
  try {
    const text = readFileSync(join(folder, 'lock.json'), 'utf8');
    const holder = /** @type {{ pid: number, address: string | null, databasePort?: number }} */ (JSON.parse(text));
    return isOurs(holder.pid) ? holder : null;
  } catch {
    return null;
  }
}

/** A process with that number that is a start of Unto, not something that took its number since. */
function isOurs(/** @type {number} */ pid) {
  const commandLine = `/proc/${pid}/cmdline`;
  return existsSync(commandLine) && /(start|dev)\.mjs/.test(readFileSync(commandLine, 'utf8'));
}
