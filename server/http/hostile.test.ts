import { randomUUID } from 'node:crypto';
import { connect } from 'node:net';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { isFileAnswer, ROUTES, type Route } from '@unto/contract';
import { bodies, valueOf, type Known } from '@unto/contract/testing';
import {
  BURNT,
  DESIGN,
  fillInventory,
  openTestRig,
  runBody,
  storeBody,
  ticketBody,
  weighingBody,
  type TestRig,
  keptFile,
} from '../testing/rig.js';

/** Requests for each route; `npm run torture` sends many more. */
const RUNS = Number(process.env['UNTO_HOSTILE_RUNS'] ?? 8);

/** What is put into files: what a parser may stumble over. */
const WORDS = fc
  .constantFrom(
    '"',
    ',',
    '\r\n',
    '{',
    '}',
    '[',
    'null',
    '-1',
    '1e999',
    '\u0000',
    '""',
    ':',
    '\ufeff',
    'true',
    '{"a":[{}]}',
  )
  .map((word) => new TextEncoder().encode(word));

let rig: TestRig;
let known: Known;

/** A shop in which something of everything stands, so that what is sent finds what it names. */
beforeAll(async () => {
  rig = await openTestRig({ works: true });
  const ids = await fillInventory(rig);
  const ticket = ticketBody(ids);
  await rig.call('POST', '/api/tickets', ticket);
  await rig.call('PUT', `/api/tickets/${ticket.id}`, {
    ...{ ...ticket, id: undefined, version: 1 },
    ...{ compoundId: ids.compound, choiceReason: 'known', state: 'open' },
  });
  await rig.call('POST', `/api/tickets/${ticket.id}/weighings`, weighingBody(ids));
  for (const burnt of [true, false]) {
    const { body: coupon } = await rig.call('POST', '/api/coupons', {
      ...{ id: randomUUID(), ticketId: ticket.id, substrateId: ids.substrate, compoundId: ids.compound },
      ...{ headId: ids.head, lensId: ids.lens, focusOffsetMm: 0, design: DESIGN },
    });
    if (burnt) await rig.call('PUT', `/api/coupons/${coupon.id}/burnt`, BURNT);
  }
  await rig.call('POST', '/api/runs', runBody(ticket.id, { pieces: 1 }));
  const hash = await keptFile(rig, 'p.jpg', Buffer.from([0xff, 0xd8, 0xff, 0xe0, 1, 2]));
  const samples = {
    createTicket: ticketBody(ids),
    createWeighing: weighingBody(ids),
    createRun: runBody(ticket.id, { pieces: 1 }),
    createCoupon: {
      ...{ ticketId: ticket.id, substrateId: ids.substrate, compoundId: ids.compound },
      ...{ headId: ids.head, lensId: ids.lens, focusOffsetMm: 0, design: DESIGN },
    },
    createInventoryItem: { kind: 'compound', body: storeBody('compound', ids) },
    createSheet: {
      entries: {
        ...{ mode: 'rows', sheetWidthMm: 300, sheetHeightMm: 200, labelWidthMm: null, labelHeightMm: null },
        ...{ gapMm: 3, marginMm: 5, keepOuts: [], pieceWidthMm: 40, pieceHeightMm: 25, pitchXMm: null, pitchYMm: null },
        ...{ firstXMm: null, firstYMm: null, shiftMm: 0, testPlaces: 1 },
        pieces: [{ label: 'tag', widthMm: 40, heightMm: 25, count: 20, test: false }],
      },
    },
  };
  const tables = ['tickets', 'coupons', 'runs', 'inventory_items', 'containers', 'timers'];
  const found = await Promise.all(
    tables.map((table) => rig.sql<{ id: string }>(`SELECT id FROM ${table} LIMIT 12`).catch(() => [])),
  );
  known = { ids: [...found.flat().map(({ id }) => id), randomUUID()], hashes: [hash, 'f'.repeat(64)], samples };
});
afterAll(() => rig.close());

/** A refusal of ours: it says what and never that nobody foresaw it. */
const foreseen = ({ status, type }: { status: number; type: string }) => status < 500 || type === 'device-away';

async function sent(route: Route, params: unknown, query: unknown, body: unknown) {
  const path = route.path.replace(/:(\w+)/g, (_, name: string) =>
    encodeURIComponent((params as Record<string, string>)[name]!),
  );
  const asked = Object.entries((query ?? {}) as object).filter(([, value]) => value !== undefined && value !== null);
  const search = new URLSearchParams(asked.map(([key, value]): [string, string] => [key, String(value)]));
  const response = await fetch(`${rig.base}${path}?${search}`, {
    method: route.method.toUpperCase(),
    headers: { 'content-type': 'application/json', 'x-unto-operator': rig.operator },
    ...(route.method === 'get' || body === undefined ? {} : { body: JSON.stringify(body) ?? '' }),
    signal: AbortSignal.timeout(10_000),
  });
  const text = await response.text();
  return { status: response.status, type: response.ok ? '' : (JSON.parse(text) as { type: string }).type, text };
}

describe('hostile requests', () => {
  it.each(Object.entries<Route>(ROUTES))(
    '%s: whatever is sent is taken or refused in words',
    async (name, route) => {
      const params = fc.record(
        Object.fromEntries(Object.entries(route.params).map(([key, schema]) => [key, valueOf(schema, known)])),
      );
      const query = route.query
        ? fc.oneof(valueOf(route.query, known), fc.constant({ cursor: '\u0000', limit: 'x' }))
        : fc.constant({});
      await fc.assert(
        fc.asyncProperty(params, query, bodies(name, route, known), async (...what) => {
          const answer = await sent(route, ...what);
          expect(foreseen(answer), `${answer.status} ${answer.text.slice(0, 300)}`).toBe(true);
          if (answer.status === 422 && isFileAnswer(route.answer) === false)
            expect((JSON.parse(answer.text) as { detail: string }).detail.length).toBeGreaterThan(5);
        }),
        { numRuns: RUNS, endOnFailure: true },
      );
    },
    60_000,
  );

  it.each(Object.entries<Route>(ROUTES).filter(([, { takesFile }]) => takesFile))(
    '%s: whatever file is brought is taken or refused in words',
    async (_name, { path }) => {
      const files = await Promise.all(
        ['/api/ledger.json', '/api/ledger.csv', '/api/inventory.json', '/api/inventory.csv?kind=compound'].map((from) =>
          fetch(rig.base + from).then(async (answer) => new Uint8Array(await answer.arrayBuffer())),
        ),
      );
      const spoilt = fc
        .tuple(fc.constantFrom(...files), fc.nat(), fc.nat(400), fc.oneof(fc.uint8Array({ maxLength: 8 }), WORDS))
        .map(([file, at, gone, put]) => {
          const from = at % (file.length + 1);
          return Buffer.concat([file.subarray(0, from), put, file.subarray(from + gone)]);
        });
      const bytes = fc.oneof({ weight: 5, arbitrary: spoilt }, { weight: 1, arbitrary: fc.uint8Array() });
      const search = fc.constantFrom('format=json&name=a', 'format=csv&kind=compound&name=b', 'format=csv&name=');
      await fc.assert(
        fc.asyncProperty(bytes, search, async (file, query) => {
          const response = await fetch(`${rig.base}${path}?${query}`, {
            method: 'POST',
            headers: { 'content-type': 'application/octet-stream', 'x-unto-operator': rig.operator },
            body: Buffer.from(file),
          });
          const text = await response.text();
          expect(response.status, text.slice(0, 300)).toBeLessThan(500);
        }),
        { numRuns: 4 * RUNS, endOnFailure: true },
      );
    },
    60_000,
  );

  const head = (lines: readonly string[], body = '') =>
    `${lines.join('\r\n')}\r\nHost: 127.0.0.1\r\nConnection: close\r\n\r\n${body}`;
  const post = (headers: readonly string[], body: string) =>
    head(
      [
        'POST /api/tickets HTTP/1.1',
        `X-Unto-Operator: ${rig.operator}`,
        `Content-Length: ${Buffer.byteLength(body)}`,
        ...headers,
      ],
      body,
    );
  it.each([
    ['an empty body', () => post(['Content-Type: application/json'], ''), 422],
    ['a body that is no JSON', () => post(['Content-Type: application/json'], '{'), 400],
    ['a body that is a word', () => post(['Content-Type: application/json'], '"x"'), 400],
    ['an unknown charset', () => post(['Content-Type: application/json; charset=klingon'], '{}'), 400],
    ['an unknown encoding', () => post(['Content-Type: application/json', 'Content-Encoding: zipped'], '{}'), 400],
    ['a damaged encoding', () => post(['Content-Type: application/json', 'Content-Encoding: gzip'], '{}'), 400],
    ['a form', () => post(['Content-Type: application/x-www-form-urlencoded'], 'a=1'), 400],
    ['nesting', () => post(['Content-Type: application/json'], '['.repeat(3000) + ']'.repeat(3000)), 422],
    ['too much', () => post(['Content-Type: application/json'], `"${'x'.repeat(1_100_000)}"`), 413],
    ['a broken address', () => head(['GET /api/tickets/%E0%A4%A HTTP/1.1']), 400],
    ['an address with NUL', () => head(['GET /api/tickets/%00 HTTP/1.1']), 404],
    ['an address of a thousand segments', () => head([`GET /${'a/'.repeat(1000)} HTTP/1.1`]), 404],
    ['a missing asset', () => head(['GET /assets/none.js HTTP/1.1']), 404],
    ['dots', () => head(['GET /assets/..%2f..%2fpackage.json HTTP/1.1']), 404],
    ['a method nobody knows', () => head(['BREW /api/tickets HTTP/1.1']), 400],
    ['a list for one query field', () => head(['GET /api/tickets?limit=x&limit=2 HTTP/1.1']), 422],
    ['a record for a query field', () => head(['GET /api/ledger?from[a]=1 HTTP/1.1']), 200],
  ])('%s is refused in words', async (_name, request, status) => {
    expect(Number(/^HTTP\/1\.1 (\d+)/.exec(await raw(request()))?.[1])).toBe(status);
  });
});

/** Sends bytes as they are and answers all that comes back. */
function raw(request: string): Promise<string> {
  const { port } = new URL(rig.base);
  return new Promise((resolve, reject) => {
    const socket = connect(Number(port), '127.0.0.1', () => socket.write(request));
    let answer = '';
    socket.on('data', (chunk: Buffer) => (answer += chunk.toString()));
    socket.on('close', () => resolve(answer));
    socket.on('error', reject);
  });
}
