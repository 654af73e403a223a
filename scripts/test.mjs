// @ts-check
// npm test: set-up, unit and API tests, then type check, lint, format and boundaries, then browser tests. Closes with what failed, by name, and one line of counts.
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, relative } from 'node:path';
import { ROOT } from './lib/paths.mjs';
import { ensureBuilt, ensureModules, ensureSystem } from './lib/setup.mjs';
import { testShare } from './lib/test-share.mjs';

const bin = (/** @type {string} */ name) => join(ROOT, 'node_modules/.bin', name);
const WORKSPACES = ['core', 'contract', 'domain', 'server', 'simulators', 'web', 'demo', 'e2e'];
let passed = 0;
let failed = 0;
/** What failed, with the first lines of why: said once more at the end, where a long output is still read. */
/** @type {string[]} */
const failures = [];

/** One step that counts as one test; what it prints stands together, since steps run side by side. */
async function step(/** @type {string} */ name, /** @type {string} */ command, /** @type {string[]} */ args) {
  const begun = Date.now();
  const child = spawn(command, args, { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'] });
  let said = '';
  child.stdout.on('data', (chunk) => (said += chunk));
  child.stderr.on('data', (chunk) => (said += chunk));
  const status = await new Promise((resolve) => child.once('close', resolve));
  process.stdout.write(said);
  if (status === 0) passed += 1;
  else {
    failed += 1;
    failures.push(`${name}\n${firstLines(said)}`);
  }
  console.log(`${status === 0 ? 'ok' : 'FAILED'}: ${name}, ${((Date.now() - begun) / 1000).toFixed(0)} s`);
}

const firstLines = (/** @type {string} */ text) => text.trim().split('\n').slice(0, 12).join('\n');

/** @typedef {{ fullName: string; status: string; failureMessages: string[] }} Assertion */
/** @param {{ name: string; message: string; assertionResults: Assertion[] }} file */
function failuresOf({ name, message, assertionResults }) {
  const bad = assertionResults.filter(({ status }) => status === 'failed');
  const at = relative(ROOT, name);
  const whole = message && bad.length === 0 ? [`${at}\n${firstLines(message)}`] : [];
  return [
    ...whole,
    ...bad.map(({ fullName, failureMessages }) => `${at} > ${fullName}\n${firstLines(failureMessages.join('\n'))}`),
  ];
}

async function suite(/** @type {string} */ project) {
  const folder = mkdtempSync(join(tmpdir(), 'unto-report-'));
  const report = join(folder, 'report.json');
  const args = ['run', '--project', project, '--reporter=default', '--reporter=json', `--outputFile.json=${report}`];
  const child = spawn(bin('vitest'), args, { cwd: ROOT, stdio: 'inherit' });
  const status = await new Promise((resolve) => child.once('close', resolve));
  try {
    const { numPassedTests, numFailedTests, numTotalTests, testResults } = JSON.parse(readFileSync(report, 'utf8'));
    passed += numPassedTests;
    failed += numFailedTests;
    failures.push(...testResults.flatMap(failuresOf));
    if (numTotalTests === 0 || (status !== 0 && numFailedTests === 0)) {
      console.error(
        `${project}: ${numTotalTests} tests and none failed, yet it ended with ${status}: see its errors above.`,
      );
      failed += 1;
    }
  } catch {
    console.error(`${project}: no report was written.`);
    failed += 1;
  }
  rmSync(folder, { recursive: true, force: true });
}

ensureSystem({ browser: true });
ensureModules();
ensureBuilt();
for (const project of ['unit', 'web', 'api']) await suite(project);
// A core each; browser tests have the machine to themselves, since what they wait for works on it too.
const checks = async () => {
  await step('format', bin('prettier'), ['--check', '--log-level', 'warn', '.']);
  await step('boundaries', bin('depcruise'), ['--config', '.dependency-cruiser.cjs', ...WORKSPACES]);
  await step('no circle of folders', bin('depcruise'), ['--config', '.dependency-cruiser.folders.cjs', ...WORKSPACES]);
  await step('lint', bin('eslint'), ['.']);
};
await Promise.all([checks(), step('type check', process.execPath, [join(ROOT, 'scripts/typecheck.mjs')])]);
await suite('e2e');
const { tests, all } = testShare();
console.log(`Tests are ${((100 * tests) / all).toFixed(1)} % of the code: ${tests} of ${all} lines.`);
for (const failure of failures) console.log(`\nFAILED ${failure}`);
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
