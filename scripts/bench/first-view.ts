import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { CLIENT } from '../lib/paths.mjs';
import type { Line } from './line.js';

/** Script that the first view loads, gzipped: what its page names and what those name in turn for Today. */
export function firstView(): Line {
  const assets = join(CLIENT, 'assets');
  const files = readdirSync(assets).filter((name) => name.endsWith('.js'));
  const seen = new Set<string>();
  const visit = (name: string) => {
    if (seen.has(name)) return;
    seen.add(name);
    const text = readFileSync(join(assets, name), 'utf8');
    for (const [, other] of text.matchAll(/(?:from|import)\s*["']\.\/([\w.-]+\.js)["']/g))
      if (files.includes(other!)) visit(other!);
  };
  const [entry] = /assets\/(index-[\w-]+\.js)/.exec(readFileSync(join(CLIENT, 'index.html'), 'utf8'))!.slice(1);
  visit(entry!);
  visit(files.find((name) => name.startsWith('TodayView'))!);
  const bytes = [...seen].reduce((sum, name) => sum + gzipSync(readFileSync(join(assets, name))).length, 0);
  const charts = [...seen].some((name) => name.startsWith('WindowChart'));
  return {
    what: 'first view, script',
    figure: `${(bytes / 1000).toFixed(0)} kB gzipped in ${seen.size} files`,
    against: 'ECharts',
    ratio: charts ? 'LOADED' : 'not loaded',
    goal: '≤ 300 kB',
    met: bytes <= 300_000 && !charts,
  };
}
