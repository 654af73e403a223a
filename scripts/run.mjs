// @ts-check
// Runs scripts/NAME.ts after the set-up that a fresh machine needs.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ROOT } from './lib/paths.mjs';
import { ensureBuilt, ensureModules, ensureSystem } from './lib/setup.mjs';

const [name, ...rest] = process.argv.slice(2);
ensureSystem({ browser: true });
ensureModules();
ensureBuilt();
const { status } = spawnSync(process.execPath, ['--import', 'tsx', join(ROOT, `scripts/${name}.ts`), ...rest], {
  cwd: ROOT,
  stdio: 'inherit',
});
process.exit(status ?? 1);
