import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { PROBLEMS, ROUTES } from '@unto/contract';
import { connect, migrate, NewerSchemaError } from './index.js';
import {
  DESIGN,
  fillStores,
  freshDatabase,
  openTestBench,
  runBody,
  storeBody,
  ticketBody,
  weighingBody,
  type TestBench,
} from './testing/bench.js';

let bench: TestBench;
let ids: Awaited<ReturnType<typeof fillStores>>;
beforeAll(async () => {
  bench = await openTestBench();
  ids = await fillStores(bench);
});
afterAll(() => bench.close());

const messages = (body: any): string[] => body.faults.map(({ message }: { message: string }) => message);
async function ticketOf(change: object = {}) {
  const body = ticketBody(ids, change);
  const { status, body: ticket } = await bench.call('POST', '/api/tickets', body);
  expect(status).toBe(200);
  return { sent: body, ticket };
}
async function withCompound(ticket: any, change: object = {}) {
  const { id, number: _n, createdAt: _c, changedAt: _d, ...fields } = ticket;
  return bench.call('PUT', `/api/tickets/${id}`, { ...fields, compoundId: ids.compound, ...change });
}

describe('the API as a whole', () => {
  it('describes exactly its routes', async () => {
    const { body } = await bench.call('GET', '/api/openapi.json');
    const listed = Object.entries<Record<string, { operationId: string }>>(body.paths).flatMap(([path, methods]) =>
      Object.entries(methods).map(([method, { operationId }]) => `${method} ${path} ${operationId}`),
    );
    const routes = Object.entries(ROUTES).map(
      ([name, { method, path }]) => `${method} ${path.replace(/:(\w+)/g, '{$1}')} ${name}`,
    );
    expect(listed.sort()).toEqual(routes.sort());
    expect(body.paths['/api/runs'].post.requestBody.content['application/json'].schema.properties.pieces.type).toBe(
      'integer',
    );
  });

  it('answers unknown places, unreadable JSON and a missing operator with problem documents', async () => {
    expect((await bench.call('GET', '/api/nowhere')).body).toMatchObject({ type: 'not-found', status: 404 });
    expect((await bench.call('POST', '/api/tickets', '{broken')).body).toMatchObject({ type: 'not-json', status: 400 });
    expect((await bench.call('POST', '/api/tickets', ticketBody(ids), { operator: null })).body.type).toBe(
      'operator-needed',
    );
    expect((await bench.call('POST', '/api/tickets', ticketBody(ids), { operator: randomUUID() })).body.type).toBe(
      'operator-needed',
    );
    for (const { status, title } of Object.values(PROBLEMS))
      expect([status >= 400, title.length > 3]).toEqual([true, true]);
  });

  it('refuses another site’s writes', async () => {
    const { status, body } = await bench.call('POST', '/api/tickets', ticketBody(ids), {
      headers: { origin: 'http://elsewhere.example' },
    });
    expect([status, body.type]).toEqual([403, 'wrong-origin']);
  });

  it('says so while the database is away, and works again after', async () => {
    const other = await openTestBench();
    const name = new URL(other.url).pathname.slice(1);
    await bench.sequelize.query(`ALTER DATABASE ${name} ALLOW_CONNECTIONS false`);
    await bench.sequelize.query(`SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = '${name}'`);
    const { status, body } = await other.call('GET', '/api/tickets');
    expect([status, body.type]).toEqual([503, 'database-away']);
    await bench.sequelize.query(`ALTER DATABASE ${name} ALLOW_CONNECTIONS true`);
    expect((await other.call('GET', '/api/tickets')).status).toBe(200);
    await other.close();
  });
});

describe('migrations', () => {
  it('run from empty, once, and refuse a newer database', async () => {
    const sequelize = connect(await freshDatabase());
    expect(await migrate(sequelize)).toEqual([
      '0001-foundation',
      '0002-choosing',
      '0003-placing',
      '0004-coating',
      '0005-fitting',
      '0006-picture',
      '0007-proving',
    ]);
    expect(await migrate(sequelize)).toEqual([]);
    await sequelize.query(`INSERT INTO migrations (name) VALUES ('9999-from-the-future')`);
    await expect(migrate(sequelize)).rejects.toThrow(NewerSchemaError);
    await sequelize.close();
  });
});

describe('stores', () => {
  it('make a new revision of every edit and keep the old', async () => {
    const id = randomUUID();
    await bench.call('POST', '/api/stores', { id, kind: 'substrate', body: storeBody('substrate') });
    const { body: second } = await bench.call('PUT', `/api/stores/${id}`, {
      version: 1,
      body: { ...storeBody('substrate'), thicknessMm: 1.5 },
    });
    expect([second.version, second.revision]).toEqual([2, 2]);
    const { body: history } = await bench.call('GET', `/api/stores/${id}/revisions`);
    expect(history.map((revision: any) => revision.body.thicknessMm)).toEqual([1.5, 1.2]);
  });

  it('offer both versions to whoever comes second', async () => {
    const id = randomUUID();
    await bench.call('POST', '/api/stores', { id, kind: 'substrate', body: storeBody('substrate') });
    await bench.call('PUT', `/api/stores/${id}`, { version: 1, body: { ...storeBody('substrate'), name: 'first' } });
    const { status, body } = await bench.call('PUT', `/api/stores/${id}`, {
      version: 1,
      body: { ...storeBody('substrate'), name: 'second' },
    });
    expect([status, body.type, body.current.body.name]).toEqual([409, 'version-conflict', 'first']);
  });

  it('refuse bad bodies at their fields', async () => {
    const refuse = async (kind: string, body: object) =>
      (await bench.call('POST', '/api/stores', { id: randomUUID(), kind, body })).body;
    expect(messages(await refuse('compound', { ...storeBody('compound'), bandLowUm: 12, bandHighUm: 8 }))[0]).toMatch(
      /must rise/,
    );
    expect(messages(await refuse('compound', { ...storeBody('compound'), dryS: 0 }))[0]).toMatch(/above 0/);
    expect(
      messages(
        await refuse('calibration', {
          ...storeBody('calibration', ids),
          rows: [
            { percent: 10, watts: 5 },
            { percent: 20, watts: 4 },
          ],
        }),
      )[0],
    ).toMatch(/falls from 5 at 10/);
    expect(messages(await refuse('lens', { ...storeBody('lens', ids), focalLengthMm: undefined }))[0]).toMatch(
      /Focal length is missing/,
    );
    expect(messages(await refuse('head', storeBody('head', { machine: ids.compound })))[0]).toMatch(/Choose a machine/);
    expect(messages(await refuse('substrate', { ...storeBody('substrate'), surprise: 1 }))[0]).toMatch(
      /surprise|unspecified/,
    );
  });

  it('keep a retired item out of new work', async () => {
    const id = randomUUID();
    await bench.call('POST', '/api/stores', { id, kind: 'substrate', body: storeBody('substrate') });
    await bench.call('PUT', `/api/stores/${id}/retired`, { version: 1, retired: true });
    const { body } = await bench.call('POST', '/api/tickets', ticketBody({ ...ids, substrate: id }));
    expect(body.faults[0]).toMatchObject({ path: 'substrateId', message: expect.stringContaining('retired') });
  });
});

describe('tickets', () => {
  it('are made once however often they are sent, and not from two bodies', async () => {
    const { sent, ticket } = await ticketOf();
    expect((await bench.call('POST', '/api/tickets', sent)).body).toEqual(ticket);
    const { status, body } = await bench.call('POST', '/api/tickets', { ...sent, pieces: 9 });
    expect([status, body.type]).toEqual([409, 'identity-conflict']);
    expect(await bench.sql(`SELECT pieces FROM tickets WHERE id = '${sent.id}'`)).toEqual([{ pieces: 48 }]);
  });

  it('refuse each bad field at its place and keep nothing', async () => {
    const { body } = await bench.call(
      'POST',
      '/api/tickets',
      ticketBody(ids, { title: ' ', pieces: 0, markWidthMm: -3, lensId: 'x', wantedOn: '2026-02-31x' }),
    );
    const paths = body.faults.map(({ path }: { path: string }) => path);
    expect(new Set(paths)).toEqual(new Set(['title', 'pieces', 'markWidthMm', 'lensId', 'wantedOn']));
    expect(
      messages((await bench.call('POST', '/api/tickets', ticketBody({ ...ids, lens: ids.compound }))).body)[0],
    ).toMatch(/not a lens/);
  });

  it('give 409 with the other version to the second of two people', async () => {
    const { ticket } = await ticketOf();
    await withCompound(ticket);
    const { status, body } = await withCompound(ticket, { compoundId: null, choiceReason: 'mine' });
    expect([status, body.current.compoundId]).toEqual([409, ids.compound]);
  });
});

describe('coat', () => {
  it('keeps weights as entered, in grams beside them, and judges the film', async () => {
    const { ticket } = await ticketOf();
    await withCompound(ticket);
    const weighing = weighingBody(ids, {
      pieces: 24,
      before: { value: 11, unit: 'oz' },
      after: { value: 300, unit: 'g' },
    });
    const { body } = await bench.call('POST', `/api/tickets/${ticket.id}/weighings`, weighing);
    expect(body.before).toEqual({ value: 11, unit: 'oz' });
    expect(body.beforeG).toBeCloseTo(311.845, 3);
    // 11.845 g × 12 % × 35 % over 24 × 44 × 28 mm at 3.6 g/cm³ = 4.674 µm, worked out by hand.
    expect(body.film.value).toBeCloseTo(4.674, 2);
    expect(body.film.grade).toBe('usual');
    const [row] = await bench.sql<{ film: { value: number } }>(
      `SELECT film FROM weighings WHERE id = '${weighing.id}'`,
    );
    expect(row!.film.value).toBeCloseTo(body.film.value, 9);
  });

  it.each([
    [{ before: 300, after: 311 }, 'after.value', /weighs more after/],
    [{ before: 300, after: 80 }, 'after.value', /less than the empty container, 96 g/],
    [{ before: 90, after: 80 }, 'before.value', /less than the empty/],
    [{ before: -1, after: 80 }, 'before.value', /cannot be negative/],
    [{ before: 300, after: 300 }, 'after.value', /both weights are the same/],
  ])('refuses %j at its field', async ({ before, after }, path, message) => {
    const { ticket } = await ticketOf();
    const { status, body } = await bench.call(
      'POST',
      `/api/tickets/${ticket.id}/weighings`,
      weighingBody(ids, { pieces: 4, before: { value: before, unit: 'g' }, after: { value: after, unit: 'g' } }),
    );
    expect(status).toBe(422);
    expect(body.faults[0]).toMatchObject({ path, message: expect.stringMatching(message) });
    expect(await bench.sql(`SELECT id FROM weighings WHERE ticket_id = '${ticket.id}'`)).toEqual([]);
  });

  it('learns transfer from weighed parts and narrows the next film', async () => {
    const { ticket } = await ticketOf({ pieces: 24 });
    for (const [i, dry] of [0.55, 0.57].entries()) {
      const { body } = await bench.call(
        'POST',
        `/api/tickets/${ticket.id}/weighings`,
        weighingBody(ids, {
          pieces: 12,
          before: { value: 300 - i * 15, unit: 'g' },
          after: { value: 287 - i * 15, unit: 'g' },
          partsBefore: { value: 220, unit: 'g' },
          partsAfter: { value: 220 + dry, unit: 'g' },
        }),
      );
      expect(body.transfer.value).toBeCloseTo(dry / (13 * 0.12), 6);
    }
    const { body } = await bench.call(
      'POST',
      `/api/tickets/${ticket.id}/weighings`,
      weighingBody(ids, { pieces: 12, before: { value: 270, unit: 'g' }, after: { value: 257, unit: 'g' } }),
    );
    expect(body.film.grade).toBe('measured');
  });

  it('will not call a coat dry before its minimum, nor fire a wet one', async () => {
    const { ticket } = await ticketOf();
    const clock = { id: randomUUID(), kind: 'dry', label: 'tray 1', minimumS: 240 };
    await bench.call('POST', `/api/tickets/${ticket.id}/clocks`, clock);
    expect(
      (await bench.call('POST', `/api/tickets/${ticket.id}/clocks`, { ...clock, id: randomUUID() })).body.detail,
    ).toMatch(/runs already/);
    bench.now = new Date(bench.now.getTime() + 200_000);
    expect((await bench.call('PUT', `/api/clocks/${clock.id}/end`, { outcome: 'passed' })).body.detail).toMatch(
      /40 s to go/,
    );
    expect((await bench.call('POST', '/api/runs', runBody(ticket.id))).body.detail).toMatch(/Never fire a wet coat/);
    bench.now = new Date(bench.now.getTime() + 40_000);
    expect((await bench.call('PUT', `/api/clocks/${clock.id}/end`, { outcome: 'passed' })).body.outcome).toBe('passed');
    expect((await bench.call('POST', '/api/runs', runBody(ticket.id))).status).toBe(200);
  });
});

async function scrubbedCoupon(ticketId: string) {
  const id = randomUUID();
  const made = await bench.call('POST', '/api/coupons', {
    id,
    ticketId,
    substrateId: ids.substrate,
    compoundId: ids.compound,
    headId: ids.head,
    lensId: ids.lens,
    focusOffsetMm: 0,
    design: DESIGN,
  });
  expect(made.status).toBe(200);
  await bench.call('PUT', `/api/coupons/${id}/burnt`, { version: 1 });
  // Speeds 60, 120, 240, 480 down; powers 40, 70, 100 across.
  const outcomes = [
    'holds',
    'holds',
    'over',
    'under',
    'holds',
    'holds',
    'under',
    'under',
    'holds',
    'under',
    'under',
    'under',
  ];
  const entries = outcomes.map((outcome, cell) => ({ cell, outcome }));
  const { body } = await bench.call('POST', `/api/coupons/${id}/readings`, {
    id: randomUUID(),
    stage: 'scrubbed',
    source: 'entered',
    entries,
  });
  expect(body.stage).toBe('scrubbed');
  return { id, coupon: body };
}

describe('coupons and recipes', () => {
  it('numbers coupons, pins revisions, and lets a coupon be redesigned only until it is burnt', async () => {
    const { ticket } = await ticketOf();
    await withCompound(ticket);
    const { id, coupon } = await scrubbedCoupon(ticket.id);
    expect(coupon.design.code).toMatch(/^K-\d{3}$/);
    expect(coupon.pins.calibration).not.toBeNull();
    const late = await bench.call('PUT', `/api/coupons/${id}`, {
      version: coupon.version,
      focusOffsetMm: 0,
      design: DESIGN,
    });
    expect(late.body.detail).toMatch(/burnt as it stands/);
  });

  it('refuses designs beyond blank, bed and head, and readings too early or beyond its cells', async () => {
    const { ticket } = await ticketOf();
    const send = (design: object) =>
      bench.call('POST', '/api/coupons', {
        id: randomUUID(),
        ticketId: ticket.id,
        substrateId: ids.substrate,
        compoundId: null,
        headId: ids.head,
        lensId: ids.lens,
        focusOffsetMm: 0,
        design: { ...DESIGN, ...design },
      });
    expect((await send({ blank: { widthMm: 10, heightMm: 10 } })).body.detail).toMatch(/The coupon needs/);
    expect((await send({ blank: { widthMm: 900, heightMm: 100 } })).body.detail).toMatch(/larger than the bed/);
    expect(
      (await send({ axes: { ...DESIGN.axes, y: { parameter: 'speed', spacing: 'list', values: [900] } } })).body.detail,
    ).toMatch(/faster than this head/);
    const { body: coupon } = await send({});
    const reading = { id: randomUUID(), stage: 'rinsed', source: 'entered', entries: [{ cell: 0, outcome: 'holds' }] };
    expect((await bench.call('POST', `/api/coupons/${coupon.id}/readings`, reading)).body.detail).toMatch(/burnt/);
    await bench.call('PUT', `/api/coupons/${coupon.id}/burnt`, { version: 1 });
    expect(
      (
        await bench.call('POST', `/api/coupons/${coupon.id}/readings`, {
          ...reading,
          entries: [{ cell: 99, outcome: 'holds' }],
        })
      ).body.detail,
    ).toMatch(/no cell 100/);
  });

  it('computes what a recipe promises here, freezes it, and grades it by hull, bound and revisions', async () => {
    const { ticket } = await ticketOf();
    await withCompound(ticket);
    const { id } = await scrubbedCoupon(ticket.id);
    const recipe = (change: object) => ({
      id: randomUUID(),
      ticketId: ticket.id,
      kind: 'widest',
      couponIds: [id],
      powerPercent: 85,
      speedMmPerS: 95,
      intervalMm: 0.06,
      passes: 1,
      focusOffsetMm: 0,
      seed: 7,
      ...change,
    });
    const inside = (await bench.call('POST', '/api/recipes', recipe({}))).body;
    expect(inside.fit).toMatchObject({ seed: 7, bound: 0.8, cells: 12, insideHull: true });
    expect(['proved', 'carried']).toContain(inside.grade);
    expect(inside.grade).toBe(inside.worst.value >= 0.8 ? 'proved' : 'carried');
    const outside = (await bench.call('POST', '/api/recipes', recipe({ intervalMm: 0.1 }))).body;
    expect([outside.fit.insideHull, outside.grade, outside.number]).toEqual([false, 'carried', 2]);
    const { body: lens } = await bench.call('GET', '/api/stores?kind=lens');
    await bench.call('PUT', `/api/stores/${ids.lens}`, {
      version: lens[0].version,
      body: { ...storeBody('lens', ids), spotXMm: 0.17 },
    });
    expect((await bench.call('POST', '/api/recipes', recipe({}))).body.grade).toBe('carried');
    expect((await bench.call('POST', '/api/recipes', recipe({ speedMmPerS: 900 }))).body.faults[0].path).toBe(
      'speedMmPerS',
    );
  });
});

describe('runs', () => {
  it('keep the setting as entered and in core units, with a graded dose', async () => {
    const { ticket } = await ticketOf();
    const { body } = await bench.call('POST', '/api/runs', runBody(ticket.id));
    expect(body).toMatchObject({ speed: { value: 25, unit: '%' }, speedMmPerS: 150, powerPercent: 90, grade: 'guess' });
    expect(body.intervalMm).toBeCloseTo(0.0747, 4);
    expect(body.dose).toMatchObject({ unit: 'J/mm²', grade: 'measured', formula: 'arealDose' });
  });

  it.each([
    [{ power: { value: 0, unit: '%' } }, 'power.value'],
    [{ power: { value: 101, unit: '%' } }, 'power.value'],
    [{ power: { value: 3, unit: '%' } }, 'power.value'],
    [{ speed: { value: 700, unit: 'mm/s' } }, 'speed.value'],
    [{ interval: { value: 0, unit: 'mm' } }, 'interval.value'],
    [{ minutes: -1 }, 'minutes'],
  ])('refuse %j at the field', async (change, path) => {
    const { ticket } = await ticketOf();
    const { status, body } = await bench.call('POST', '/api/runs', runBody(ticket.id, change));
    expect([status, body.faults[0].path]).toEqual([422, path]);
    expect(await bench.sql(`SELECT id FROM runs WHERE ticket_id = '${ticket.id}'`)).toEqual([]);
  });

  it('are never changed: a correction stands beside what it corrects', async () => {
    const { ticket } = await ticketOf();
    const { body: first } = await bench.call('POST', '/api/runs', runBody(ticket.id));
    await expect(bench.sequelize.query(`UPDATE runs SET pieces = 1 WHERE id = '${first.id}'`)).rejects.toThrow(
      /append-only/,
    );
    await expect(bench.sequelize.query(`DELETE FROM runs WHERE id = '${first.id}'`)).rejects.toThrow(/append-only/);
    const { body: second } = await bench.call(
      'POST',
      '/api/runs',
      runBody(ticket.id, { correctsId: first.id, pieces: 5 }),
    );
    expect((await bench.call('GET', `/api/runs/${first.id}`)).body.correctedById).toBe(second.id);
    const page = (await bench.call('GET', `/api/tickets/${ticket.id}`)).body;
    expect(page.stations.find(({ station }: any) => station === 'mark').word).toBe('5 of 48');
  });

  it('cannot have more good pieces than pieces', async () => {
    const { ticket } = await ticketOf();
    const { body: run } = await bench.call('POST', '/api/runs', runBody(ticket.id));
    const judgement = {
      id: randomUUID(),
      contrastStep: 4,
      evenness: 'even',
      piecesGood: 7,
      faults: [],
      tests: [],
      note: '',
    };
    expect((await bench.call('POST', `/api/runs/${run.id}/judgements`, judgement)).body.faults[0].path).toBe(
      'piecesGood',
    );
  });
});

describe('stated settings', () => {
  it('stay unknown where something was not stated, and are kept as typed', async () => {
    const stated = {
      id: randomUUID(),
      title: 'Ceramic',
      family: 'glazed ceramic',
      wavelengthClass: 'co2',
      ratedW: 35,
      topSpeedMmPerS: null,
      power: { value: 50, unit: '%' },
      speed: { value: 25, unit: '%' },
      interval: null,
      frequencyKHz: null,
      pulseNs: null,
      passes: 1,
      source: 'label',
      note: '',
    };
    const { body } = await bench.call('POST', '/api/practice', stated);
    expect(body).toMatchObject({ speed: { value: 25, unit: '%' }, powerW: 17.5, speedMmPerS: null, doseJPerMm2: null });
    const known = {
      ...stated,
      id: randomUUID(),
      ratedW: 10,
      topSpeedMmPerS: 508,
      power: { value: 7, unit: 'W' },
      speed: { value: 50, unit: '%' },
      interval: { value: 0.001, unit: 'in' },
    };
    expect((await bench.call('POST', '/api/practice', known)).body.doseJPerMm2).toBeCloseTo(1.085, 3);
    expect(
      (await bench.call('POST', '/api/practice', { ...known, id: randomUUID(), power: { value: 12, unit: 'W' } }))
        .status,
    ).toBe(422);
  });
});
