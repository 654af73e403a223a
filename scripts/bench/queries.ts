import { randomUUID } from 'node:crypto';
import type { Line } from './line.js';
import { withDemoServer, type DemoServer } from './demo-server.js';

interface Step {
  readonly what: string;
  /** SQL queries it may take at most. */
  readonly most: number;
  /** What the page asks for, one request after another. */
  readonly asks: readonly (readonly [method: 'GET' | 'POST', path: string, body?: object])[];
}

/** Requests and SQL queries behind what a person does most; the pages ask exactly this. */
export async function queriesPerPage(folder: string): Promise<Line[]> {
  return withDemoServer(folder, async (server) => {
    const lines: Line[] = [];
    for (const step of await stepsOf(server)) lines.push(await counted(server, step));
    return lines;
  });
}

async function stepsOf({ base }: DemoServer): Promise<Step[]> {
  const records = async (path: string) =>
    ((await (await fetch(base + path)).json()) as { records: { id: string; title?: string; code?: string }[] }).records;
  const ticket = (await records('/api/tickets?limit=500')).find(({ title }) => title === 'Orchid bed tags')!.id;
  const [coupon] = await records('/api/coupons?limit=500&stage=scrubbed');
  const page = `/api/tickets/${ticket}`;
  const { substrateId, compoundId, headId, lensId } = (
    (await (await fetch(base + page)).json()) as {
      ticket: Record<'substrateId' | 'compoundId' | 'headId' | 'lensId', string>;
    }
  ).ticket;
  const of = new URLSearchParams({ substrateId, compoundId, headId, lensId }).toString();
  const containers = (await records('/api/inventory?kind=container&limit=500')) as unknown as {
    id: string;
    body: { compoundId: string };
  }[];
  const weighing = {
    id: randomUUID(),
    containerId: containers.find(({ body }) => body.compoundId === compoundId)!.id,
    pieces: 2,
    before: { value: 300, unit: 'g' },
    after: { value: 299, unit: 'g' },
    strokes: null,
    partsBefore: null,
    partsAfter: null,
    correctsId: null,
  };
  return [
    { what: 'ticket page', most: 33, asks: [['GET', page]] },
    {
      what: 'a weighing kept, and what is asked again after it',
      most: 65,
      asks: [
        ['POST', `/api/tickets/${ticket}/weighings`, weighing],
        ['GET', page],
        ['GET', '/api/today'],
      ],
    },
    {
      what: 'coupon with its ticket',
      most: 38,
      asks: [
        ['GET', `/api/coupons/${coupon!.id}`],
        ['GET', page],
      ],
    },
    { what: 'window', most: 16, asks: [['GET', `/api/windows/cells?${of}`]] },
    { what: 'Choose', most: 82, asks: [['GET', `/api/tickets/${ticket}/choice`]] },
  ];
}

async function counted({ base, sequelize }: DemoServer, { what, most, asks }: Step): Promise<Line> {
  const [person] = (await (await fetch(`${base}/api/operators`)).json()) as { id: string }[];
  let queries = 0;
  const query = sequelize.query.bind(sequelize);
  sequelize.query = ((...asked: Parameters<typeof query>) => {
    // The look whether anything was written stands before every read, and for all of it when nothing was.
    if (!/pg_current_snapshot/.test(String(asked[0]))) queries += 1;
    return query(...asked);
  }) as typeof sequelize.query;
  const begun = performance.now();
  for (const [method, path, body] of asks) {
    // As nobody asked before: an address of its own shares no answer.
    const answer = await fetch(`${base}${path}${method === 'GET' ? `?alone=${randomUUID()}` : ''}`, {
      method,
      headers: { 'content-type': 'application/json', 'x-unto-operator': person!.id },
      ...(body ? { body: JSON.stringify(body) } : {}),
    });
    if (!answer.ok) throw new Error(`${method} ${path} answered ${answer.status}: ${await answer.text()}`);
    await answer.arrayBuffer();
  }
  const ms = performance.now() - begun;
  sequelize.query = query;
  return {
    what: `requests and SQL queries, ${what}`,
    figure: `${asks.length} request${asks.length === 1 ? '' : 's'}, ${queries} queries, ${ms.toFixed(0)} ms`,
    against: 'the queries it may take',
    ratio: `${queries} of ${most}`,
    goal: `≤ ${most}`,
    met: queries <= most,
  };
}
