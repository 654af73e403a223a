// @ts-check
import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join, relative } from 'node:path';
import { ROOT } from './paths.mjs';

const LEFT_OUT = ['node_modules', 'dist', '.git', '.vite', 'docs'];

/** Non-blank lines of tests, and of all code. */
export function testShare() {
  let tests = 0;
  let all = 0;
  const visit = (/** @type {string} */ path) => {
    if (statSync(path).isDirectory()) {
      for (const name of readdirSync(path)) if (!LEFT_OUT.includes(name)) visit(join(path, name));
    } else if (/\.(ts|vue|mjs|js)$/.test(path)) {
      const lines = readFileSync(path, 'utf8')
        .split('\n')
        .filter((line) => line.trim() !== '').length;
      all += lines;
      if (/\.test\.ts$/.test(path) || relative(ROOT, path).startsWith('e2e/')) tests += lines;
    }
  };
  visit(ROOT);
  return { tests, all };
}
