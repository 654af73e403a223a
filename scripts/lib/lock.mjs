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
      const holder = readHolder(file);
      if (holder && isOurs(holder.pid)) {
        throw new Error(
          `Unto runs already on this state folder (${folder}), process ${holder.pid}${holder.address ? `, at ${holder.address}` : ''}.`,
        );
      }
      rmSync(file, { force: true });
    }
  }
  throw new Error(`The lock ${file} cannot be taken.`);
}

function readHolder(/** @type {string} */ file) {
  try {
    return /** @type {{ pid: number, address: string | null }} */ (JSON.parse(readFileSync(file, 'utf8')));
  } catch {
    return null;
  }
}

/** A process with that number that is a start of Unto, not something that took its number since. */
function isOurs(/** @type {number} */ pid) {
  const commandLine = `/proc/${pid}/cmdline`;
  return existsSync(commandLine) && /(start|dev)\.mjs/.test(readFileSync(commandLine, 'utf8'));
}
