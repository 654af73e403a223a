import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { inBrowser } from './bench/browser.js';
import { ranking } from './bench/choosing.js';
import { firstView } from './bench/first-view.js';
import { ledgerImport, ledgerOverHttp } from './bench/ledger.js';
import type { Line } from './bench/line.js';
import { underLoad } from './bench/load.js';
import { artworkMeasured, artworkProgram } from './bench/artwork.js';
import { countPress } from './bench/counting.js';
import { trayRead } from './bench/tray.js';
import { nesting } from './bench/nesting.js';
import { againstImageJs, exportAgainstBytes, pictureStudy, readingInWorker } from './bench/proving.js';
import { queriesPerPage } from './bench/queries.js';
import { fitAgainstMinimiser, wholeWindow } from './bench/window.js';
import { shopLines } from './bench/window-shops.js';
import { windowStudy } from './bench/window-study.js';

/** Every benchmark by its name; each takes a folder for what it needs to write, and answers one line or several. */
const BENCHES: Record<string, (folder: string) => Line | Line[] | Promise<Line | Line[]>> = {
  fit: fitAgainstMinimiser,
  export: exportAgainstBytes,
  setting: wholeWindow,
  windows: () => windowStudy(200),
  shops: () => shopLines(200),
  ranking,
  nesting,
  artworkMeasured,
  artworkProgram,
  trayRead,
  countPress,
  ledger: ledgerOverHttp,
  ledgerImport,
  load: underLoad,
  queries: queriesPerPage,
  browser: inBrowser,
  pictures: () => pictureStudy(50),
  reading: againstImageJs,
  worker: readingInWorker,
  'first-view': firstView,
};

const HELP = 'npm run bench -- [--only NAME[,NAME]] [--json] [--list]';

/** What was asked for. @throws Error with the way to ask, for an unknown name or option */
function asked(): { names: string[]; json: boolean; list: boolean } {
  const options = { only: { type: 'string' }, json: { type: 'boolean' }, list: { type: 'boolean' } } as const;
  const { values } = parseArgs({ options });
  const names = values.only?.split(',') ?? Object.keys(BENCHES);
  const strange = names.filter((name) => !(name in BENCHES));
  if (strange.length)
    throw new Error(`No benchmark is called ${strange.join(', ')}. Known: ${Object.keys(BENCHES).join(', ')}`);
  return { names, json: values.json ?? false, list: values.list ?? false };
}

async function main(): Promise<void> {
  const { names, json, list } = asked();
  if (list) return void process.stdout.write(`${names.join('\n')}\n`);
  const folder = mkdtempSync(join(tmpdir(), 'unto-bench-'));
  // The database's own user passes through it.
  chmodSync(folder, 0o711);
  try {
    const lines: (Line & { name: string })[] = [];
    for (const name of names) lines.push(...[await BENCHES[name]!(folder)].flat().map((line) => ({ name, ...line })));
    if (json) process.stdout.write(`${JSON.stringify(lines, null, 2)}\n`);
    else for (const line of lines) process.stdout.write(inWords(line));
    if (lines.some(({ met }) => !met)) process.exitCode = 1;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** One benchmark, a figure a line: tables of eighty columns hide what matters. */
function inWords({ name, what, figure, against, ratio, goal, met }: Line & { name: string }): string {
  return `${met ? 'met   ' : 'MISSED'} ${name}: ${what}\n       ${figure}\n       against ${against}: ${ratio} (goal ${goal})\n`;
}

main().catch((error: unknown) => {
  process.stderr.write(`${(error as Error).message}\n${HELP}\n`);
  process.exit(1);
});
