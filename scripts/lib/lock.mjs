// @ts-check
import { spawnSync } from 'node:child_process';
import { closeSync, existsSync, openSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** @typedef {{ pid: number, server?: number | undefined, address: string | null, databasePort?: number | undefined }} Holder */

/** How long a server whose start is gone may take to end, s. */
const ENDS_WITHIN_S = 15;
/** How long what is ending keeps its lock, s. */
const LETS_GO_WITHIN_S = 5;
const START = /(start|dev|backup)\.mjs/;
const SERVER = /serve\.js/;

/**
 * Takes the state folder for this process, so that two servers never share it. The kernel holds the lock (flock) and lets go of it when
 * the last process that has it open is gone, however it went: the start, and the server it was handed on to.
 * @throws Error in words, with the other's address, when it is taken
 */
export function takeLock(/** @type {string} */ folder) {
  const fd = openSync(join(folder, 'lock'), 'a', 0o600);
  if (!flocked(fd) && !takenOver(folder, fd)) {
    closeSync(fd);
    const holder = holderOf(folder);
    throw new Error(
      `Unto runs already on this state folder (${folder})${holder ? `, process ${holder.pid}` : ''}${holder?.address ? `, at ${holder.address}` : ''}. Nothing was started.`,
    );
  }
  const file = join(folder, 'lock.json');
  const tell = (/** @type {Partial<Holder>} */ more) =>
    writeFileSync(file, JSON.stringify({ pid: process.pid, address: null, ...more }));
  tell({});
  return {
    /** To be handed on to the server, so that the folder stays taken as long as it lives. */
    fd,
    tell,
    release: () => {
      rmSync(file, { force: true });
      closeSync(fd);
    },
  };
}

/** Whether the lock came to this open file: it belongs to the file as it was opened here, not to the program that asks for it. */
function flocked(/** @type {number} */ fd, waitS = 0) {
  const { error, status } = spawnSync('flock', ['--wait', String(waitS), '3'], {
    stdio: ['ignore', 'ignore', 'ignore', fd],
  });
  if (error) throw new Error('The program flock is missing (Debian package util-linux). Nothing was started.');
  return status === 0;
}

/** A server whose start was killed ends by itself; one that does not is ended here. What nobody holds any more is let go of in a moment. */
function takenOver(/** @type {string} */ folder, /** @type {number} */ fd) {
  const holder = holderOf(folder, { orphaned: true });
  if (!holder) return flocked(fd, LETS_GO_WITHIN_S);
  if (!holder.server || isOurs(holder.pid, START)) return false;
  console.log(`An earlier start was killed; its server (process ${holder.server}) still runs. Taking over …`);
  if (flocked(fd, ENDS_WITHIN_S)) return true;
  if (isOurs(holder.server, SERVER)) process.kill(holder.server, 'SIGKILL');
  return flocked(fd, LETS_GO_WITHIN_S);
}

/**
 * The start of Unto that holds a state folder just now; null where none does.
 * @param {string} folder @param {{ orphaned?: boolean }} options orphaned: also one that is gone and left its server
 * @returns {Holder | null}
 */
export function holderOf(folder, { orphaned = false } = {}) {
  try {
    const holder = /** @type {Holder} */ (JSON.parse(readFileSync(join(folder, 'lock.json'), 'utf8')));
    const starts = isOurs(holder.pid, START);
    return starts || (orphaned && holder.server && isOurs(holder.server, SERVER)) ? holder : null;
  } catch {
    return null;
  }
}

/** A process with that number that is a program of Unto, not something that took its number since. */
function isOurs(/** @type {number} */ pid, /** @type {RegExp} */ program) {
  const commandLine = `/proc/${pid}/cmdline`;
  return existsSync(commandLine) && program.test(readFileSync(commandLine, 'utf8'));
}
