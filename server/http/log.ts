import { chmodSync, mkdirSync } from 'node:fs';
import { basename, dirname } from 'node:path';
import pino, { type Logger } from 'pino';
import { createStream } from 'rotating-file-stream';

/**
 * The server's log: a file that is turned over at 5 MB, five kept; without one, what is printed.
 * @param level pino's, `info` where none is given: what starts, stops and goes wrong, not every request
 */
export function openLog(file: string | undefined, level = 'info'): Logger {
  if (!file) return pino({ level });
  mkdirSync(dirname(file), { recursive: true, mode: 0o700 });
  const stream = createStream(basename(file), {
    path: dirname(file),
    size: '5M',
    maxFiles: 5,
    mode: 0o600,
  });
  // A log that cannot be written (a full disk) is no reason to end.
  stream.on('error', () => undefined);
  stream.on('open', (name) => chmodSync(name, 0o600));
  return pino({ level }, stream);
}
