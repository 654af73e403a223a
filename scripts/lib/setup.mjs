// @ts-check
import { spawnSync } from 'node:child_process';
import { existsSync, statSync, utimesSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { CLIENT, COMPILED, isRoot, newestChange, ROOT } from './paths.mjs';
import { postgresPrograms } from './postgres.mjs';
import { run } from './run-command.mjs';

/** Installs what is missing from Debian's packages as root or with sudo; otherwise names it. */
export function ensureSystem(/** @type {{ browser: boolean }} */ { browser }) {
  const missing = [
    ...(postgresPrograms() ? [] : ['postgresql']),
    ...(browser && !existsSync('/usr/bin/chromium') ? ['chromium'] : []),
    ...(browser && !existsSync('/usr/bin/chromedriver') ? ['chromium-driver'] : []),
  ];
  if (missing.length === 0) return;
  const sudo = isRoot() ? [] : spawnSync('sudo', ['-n', 'true']).status === 0 ? ['sudo', '-n'] : null;
  if (!sudo || spawnSync('which', ['apt-get']).status !== 0) {
    throw new Error(
      `Missing: ${missing.join(', ')}. Install these Debian packages (sudo apt-get install ${missing.join(' ')}) and start again.`,
    );
  }
  console.log(`Installing ${missing.join(', ')} from Debian's packages …`);
  if (missing.includes('postgresql')) refuseDefaultCluster(sudo);
  const apt = (/** @type {string[]} */ ...args) => {
    const [command, ...rest] = [
      ...sudo,
      'env',
      'DEBIAN_FRONTEND=noninteractive',
      'apt-get',
      '-q',
      '-y',
      '-o',
      'Dpkg::Options::=--force-confold',
      ...args,
    ];
    run(/** @type {string} */ (command), rest);
  };
  apt('update');
  apt('install', '--no-install-recommends', ...missing);
}

/** Debian's package makes and starts a cluster of its own unless told not to; ours is another. */
function refuseDefaultCluster(/** @type {string[]} */ sudo) {
  const file = '/etc/postgresql-common/createcluster.conf';
  if (existsSync(file)) return;
  const script = `mkdir -p /etc/postgresql-common && echo 'create_main_cluster = false' > ${file}`;
  const [command, ...rest] = [...sudo, 'sh', '-c', script];
  run(/** @type {string} */ (command), rest);
}

/** npm ci when node_modules is missing or older than the lock file. */
export function ensureModules() {
  const installed = join(ROOT, 'node_modules/.package-lock.json');
  const stamp = join(ROOT, 'node_modules/.unto-installed');
  const lock = statSync(join(ROOT, 'package-lock.json')).mtimeMs;
  if (existsSync(installed) && existsSync(stamp) && statSync(stamp).mtimeMs >= lock) return;
  if (existsSync(installed) && !existsSync(stamp) && statSync(installed).mtimeMs >= lock) return;
  console.log('Installing packages (npm ci) …');
  run('npm', ['ci', '--no-audit', '--no-fund']);
  writeFileSync(stamp, '');
  utimesSync(stamp, new Date(), new Date());
}

const SHARED = ['core', 'contract', 'domain', 'package-lock.json'];

/** Builds what a browser is sent and what the server runs, each when it is missing or older than its sources. */
export function ensureBuilt() {
  build('client', join(CLIENT, 'index.html'), ['web', ...SHARED], ['build', 'web']);
  const parts = ['server', 'simulators', 'demo', 'scripts', ...SHARED];
  build('server', join(COMPILED, 'serve.js'), parts, ['build', '--config', 'scripts/build.config.ts']);
}

/** @param {string} what @param {string} made @param {string[]} parts @param {string[]} args */
function build(what, made, parts, args) {
  if (existsSync(made) && statSync(made).mtimeMs >= newestChange(parts.map((name) => join(ROOT, name)))) return;
  console.error(`Building the ${what} …`);
  run(join(ROOT, 'node_modules/.bin/vite'), args);
}
