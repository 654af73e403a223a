import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { startCluster } from '../lib/cluster.mjs';
import { launchServer } from '../lib/server.mjs';
import type { Line } from './line.js';

const CLIENTS = [1, 8, 32];
/** Requests a client makes of each page. */
const EACH = 12;
/** p95 wanted at the most clients, ms. */
const GOALS: Readonly<Record<string, number>> = {
  'ledger’s first page': 250,
  Today: 250,
  'ticket page': 250,
  Choose: 600,
};

/** How long pages take that several clients ask for at once: the demo behind a server process of its own, both on the same cores. */
export async function underLoad(folder: string): Promise<Line[]> {
  const own = join(folder, 'load');
  mkdirSync(own, { recursive: true });
  const cluster = await startCluster({ folder: own, durable: false });
  const env = { UNTO_CALLS_PER_MINUTE: '1000000' };
  const server = launchServer({ url: cluster.url, port: 0, files: join(own, 'files'), env });
  try {
    const base = await server.address;
    const { records } = (await (await fetch(`${base}/api/tickets`)).json()) as { records: { id: string }[] };
    const of = (text: string) => (i: number) => `${base}/api/tickets/${records[i % records.length]!.id}${text}`;
    const pages: Record<string, (i: number) => string> = {
      'ledger’s first page': () => `${base}/api/ledger`,
      Today: () => `${base}/api/today`,
      'ticket page': of(''),
      Choose: of('/choice'),
    };
    const lines: Line[] = [];
    for (const [name, address] of Object.entries(pages))
      lines.push(await line(name, address, () => changeSomething(base)));
    return lines;
  } finally {
    await server.stop();
    cluster.stop();
  }
}

async function line(name: string, address: (i: number) => string, change: () => Promise<unknown>): Promise<Line> {
  // Once round before anything is timed.
  await timed(1, address);
  const figures: string[] = [];
  let [alone, worst] = [0, 0];
  const writing = await timed(CLIENTS.at(-1)!, address, change);
  for (const clients of CLIENTS) {
    const { median, p95 } = await timed(clients, address);
    figures.push(`${clients} client${clients > 1 ? 's' : ''} ${median.toFixed(0)} / ${p95.toFixed(0)} ms`);
    if (clients === 1) alone = p95;
    worst = p95;
  }
  const goal = GOALS[name]!;
  return {
    what: `${name} under load`,
    figure: `median / p95 of ${figures.join(', ')}; while something is changed each second ${writing.median.toFixed(0)} / ${writing.p95.toFixed(0)} ms`,
    against: 'one client',
    ratio: `${(worst / alone).toFixed(1)} × its p95`,
    goal: `p95 at ${CLIENTS.at(-1)} clients at most ${goal} ms`,
    met: worst <= goal,
  };
}

/** Something written, after which everything that is read is worked out anew. */
async function changeSomething(base: string): Promise<void> {
  const shop = (await (await fetch(`${base}/api/workshop`)).json()) as object;
  const [operator] = (await (await fetch(`${base}/api/operators`)).json()) as { id: string }[];
  const headers = { 'content-type': 'application/json', 'x-unto-operator': operator!.id };
  await fetch(`${base}/api/workshop`, { method: 'PUT', headers, body: JSON.stringify(shop) });
}

async function timed(
  clients: number,
  address: (i: number) => string,
  change?: () => Promise<unknown>,
): Promise<{ median: number; p95: number }> {
  const times: number[] = [];
  const changes = change && setInterval(() => void change(), 1000);
  const client = async (which: number) => {
    for (let i = 0; i < EACH; i += 1) {
      const begun = performance.now();
      const response = await fetch(address(which * EACH + i));
      await response.arrayBuffer();
      if (!response.ok) throw new Error(`${response.url}: ${response.status}`);
      times.push(performance.now() - begun);
    }
  };
  await Promise.all(Array.from({ length: clients }, (_, i) => client(i)));
  clearInterval(changes);
  times.sort((a, b) => a - b);
  const at = (share: number) => times[Math.min(times.length - 1, Math.floor(share * times.length))]!;
  return { median: at(0.5), p95: at(0.95) };
}
