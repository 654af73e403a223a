import { randomUUID } from 'node:crypto';
import pino from 'pino';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { Burn, Coupon } from '@unto/contract';
import { DeviceRefusal } from '../devices/ask.js';
import { connect, defineModels, folderStore, INLINE_POOL, openJobQueue, startWork } from '../index.js';
import { DESIGN, fillInventory, openTestRig, storeBody, ticketBody, type TestRig } from '../testing/rig.js';
import { TestHead } from '../testing/test-head.js';

let rig: TestRig;
let ids: Awaited<ReturnType<typeof fillInventory>>;
let head: TestHead;
beforeAll(async () => {
  rig = await openTestRig({ works: true });
  ids = await fillInventory(rig);
});
beforeEach(() => {
  rig.devices.controller = head = new TestHead();
  rig.scenes.length = 0;
});
/** The head is free for the next. */
afterEach(() => rig.sql(`UPDATE burns SET state = 'nothing' WHERE state NOT IN ('done', 'partly', 'not sent')`));
afterAll(() => rig.close());

async function newCoupon(): Promise<Coupon> {
  const ticket = ticketBody(ids);
  await rig.call('POST', '/api/tickets', ticket);
  const { body } = await rig.call('POST', '/api/coupons', {
    ...{ id: randomUUID(), ticketId: ticket.id, substrateId: ids.substrate, compoundId: ids.compound },
    ...{ headId: ids.head, lensId: ids.lens, focusOffsetMm: 0, design: DESIGN },
  });
  return body;
}
const send = ({ id, version }: Pick<Coupon, 'id' | 'version'>) =>
  rig.call('POST', `/api/coupons/${id}/burns`, {
    ...{ id: randomUUID(), version, laserOn: 'M3', air: 'off', extraction: 'on' },
  });
const act = (burn: Burn, action: string) => rig.call('PUT', `/api/burns/${burn.id}/act`, { action });
const settle = (burn: Burn, as: string, seen: number | null = null) =>
  rig.call('PUT', `/api/burns/${burn.id}/settle`, { as, seen });
const coupon = async (id: string) => (await rig.call('GET', `/api/coupons/${id}`)).body as Coupon;
const becomes = (id: string, ...states: Burn['state'][]) =>
  rig.until(
    () => coupon(id),
    ({ burn }) => states.includes(burn!.state),
  );
const soon = () => (rig.now = new Date(rig.now.getTime() + 11_000));
const row = async (id: string) =>
  (await rig.sql<Record<string, unknown>>(`SELECT * FROM burns WHERE id = '${id}'`))[0]!;
/** Sent, and running as far as the controller says. */
async function running(): Promise<Coupon & { burn: Burn }> {
  const { body } = await send(await newCoupon());
  return (await becomes(body.id, 'running')) as Coupon & { burn: Burn };
}

describe('a coupon on the controller', () => {
  it('is kept before it is sent as its own program, followed, and burnt when it is done', async () => {
    const made = await newCoupon();
    let seen: Record<string, unknown> = {};
    head.meanwhile = async ({ name }) => void (seen = await row(name.split(' ')[0]!));
    const { body } = await send(made);
    expect(body.burn).toMatchObject({ state: 'queued', cellsDone: [] });
    await becomes(made.id, 'running');
    expect(seen).toMatchObject({ state: 'sending', attempt: 1, lease_until: expect.any(Date) });
    expect(head.sent).toMatchObject([
      { name: `${body.burn.id} 1`, gcode: expect.stringMatching(/^\(coupon K-\d+, 12/) },
    ]);
    expect(rig.scenes).toMatchObject([
      {
        ...{ at: 'head', air: false, extraction: true },
        setup: { key: made.design.code, family: 'stainless', batch: made.ticketId, focusMm: 0, radiusMm: 0.0825 },
      },
    ]);
    expect((await send(body)).body.detail).toMatch(/sent to the head already/);
    head.says = { cellsDone: [0, 1], cell: 2, elapsedS: 40 };
    await rig.until(
      () => coupon(made.id),
      ({ burn }) => burn!.cell === 2 && burn!.elapsedS === 40,
    );
    head.says = { state: 'done', cellsDone: Array.from({ length: 12 }, (_, i) => i) };
    expect(await becomes(made.id, 'done')).toMatchObject({ stage: 'burnt', burntCells: null });
    await rig.until(
      () => row(body.burn.id),
      ({ holder }) => holder === null,
    );
  });

  it('holds up no request and no transaction while the controller takes its time', async () => {
    const made = await newCoupon();
    let go = () => undefined as void;
    head.meanwhile = () => new Promise<void>((resolve) => (go = resolve));
    await send(made);
    await becomes(made.id, 'sending');
    const open = await rig.sql(
      `SELECT query FROM pg_stat_activity WHERE datname = current_database() AND state LIKE 'idle in transaction%'`,
    );
    expect(open).toEqual([]);
    go();
    await becomes(made.id, 'running');
  });

  it('pauses and stops when asked; what was under the beam then counts as burnt in part', async () => {
    const { id, burn } = await running();
    head.whenTold.pause = { state: 'paused' };
    head.whenTold.stop = { state: 'stopped', cellsDone: [0, 1], cell: 2 };
    expect((await act(burn, 'pause')).body.burn.asked).toBe('pause');
    await becomes(id, 'paused');
    await act(burn, 'stop');
    expect((await becomes(id, 'stopped')).burn).toMatchObject({ cellsDone: [0, 1], cellsCut: [2], asked: null });
    expect(head.told).toEqual(['pause', 'stop']);
    expect((await act(burn, 'resume')).body.detail).toMatch(/ended already/);
    head.whenSent = {};
    await settle(burn, 'resume');
    await becomes(id, 'running');
    expect(head.sent[1]!.name).toBe(`${burn.id} 2`);
    expect(head.sent[1]!.gcode).not.toMatch(/\(label|\(cell [123] /);
    expect(head.sent[1]!.gcode).toMatch(/\(cell 4 /);
    head.says = { state: 'done', cellsDone: [3, 4, 5, 6, 7, 8, 9, 10, 11] };
    const done = await becomes(id, 'done');
    expect(done.burntCells).toEqual([0, 1, 3, 4, 5, 6, 7, 8, 9, 10, 11]);
    const entry = { id: randomUUID(), stage: 'rinsed', source: 'entered', entries: [{ cell: 2, outcome: 'holds' }] };
    const read = await rig.call('POST', `/api/coupons/${id}/readings`, entry);
    expect(read.body.faults[0].message).toMatch(/Cell 3 was not burnt whole/);
  });

  it('keeps how air and extraction stood as the controller told, not as somebody said', async () => {
    const { id } = await running();
    head.says = { air: true, extraction: true };
    await rig.until(
      () => rig.sql<{ air: string }>(`SELECT air FROM burns WHERE coupon_id = '${id}'`),
      ([found]) => found!.air === 'on',
    );
    head.says = { air: true, extraction: false, state: 'done', cellsDone: Array.from({ length: 12 }, (_, i) => i) };
    const { firing } = await becomes(id, 'done');
    expect([firing!.air, firing!.extraction]).toEqual(['on', null]);
  });

  it('is refused over a wet coat, with a head that is taken, without a controller, and on a head that takes no G-code', async () => {
    const made = await newCoupon();
    const clock = { id: randomUUID(), kind: 'dry', label: 'coupon', minimumS: 600 };
    await rig.call('POST', `/api/tickets/${made.ticketId}/timers`, clock);
    expect((await send(made)).body.detail).toMatch(/Never fire a wet coat/);
    await rig.call('PUT', `/api/timers/${clock.id}/end`, { outcome: 'dropped' });
    rig.devices.controller = null;
    expect((await send(made)).body).toMatchObject({ status: 502, detail: expect.stringMatching(/No controller/) });
    rig.devices.controller = head;
    const other = await running();
    expect((await send(made)).body.detail).toBe(`The head has ${other.design.code}. Let it end, or settle it there.`);
    const byHand = { version: made.version, notes: { air: 'off', extraction: 'on', powerMode: 'constant' } };
    const { version } = await coupon(other.id);
    const claimed = await rig.call('PUT', `/api/coupons/${other.id}/burnt`, { ...byHand, version });
    expect(claimed.body.detail).toMatch(/settle that run first/);
    const own = { machine: randomUUID(), head: randomUUID(), lens: randomUUID() };
    const galvo = { ...storeBody('machine'), name: 'Post', motion: 'galvo' };
    await rig.call('POST', '/api/inventory', { id: own.machine, kind: 'machine', body: galvo });
    for (const kind of ['head', 'lens'] as const)
      await rig.call('POST', '/api/inventory', { id: own[kind], kind, body: storeBody(kind, { ...ids, ...own }) });
    const { body: vector } = await rig.call('POST', '/api/coupons', {
      ...{ id: randomUUID(), ticketId: null, substrateId: ids.substrate, compoundId: null, focusOffsetMm: 0 },
      ...{ headId: own.head, lensId: own.lens, design: DESIGN },
    });
    expect((await send(vector)).body.detail).toMatch(/takes no G-code/);
    expect(await rig.sql(`SELECT id FROM burns WHERE coupon_id IN ('${made.id}', '${vector.id}')`)).toEqual([]);
  });

  it('is given to a head once where two are sent in the same moment', async () => {
    const made = [await newCoupon(), await newCoupon()];
    const answers = await Promise.all(made.map((one) => send(one)));
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409]);
  });
});

describe('a program that does not go out', () => {
  it.each([
    ['the controller is away', () => void (head.away = true), /does not answer. Nothing was sent/],
    [
      'the head runs something else',
      () => void (head.says = { program: 'a plaque', state: 'running' }),
      /busy with some/,
    ],
    [
      'it is refused',
      () => void (head.meanwhile = () => Promise.reject(new DeviceRefusal('door open'))),
      /refused it: door/,
    ],
  ])('because %s leaves the coupon as it was, and says why', async (_what, breaks, why) => {
    const made = await newCoupon();
    breaks();
    await send(made);
    const after = await becomes(made.id, 'not sent');
    expect(after).toMatchObject({ stage: 'designed', firing: null, burn: { fault: expect.stringMatching(why) } });
    expect(head.sent).toEqual([]);
    rig.devices.controller = head = new TestHead();
    soon();
    await send(after);
    await becomes(made.id, 'running');
  });

  it('is not sent later, when nobody is there any more', async () => {
    const made = await newCoupon();
    head.state = async () => {
      await rig.sql(`UPDATE burns SET send_before = now() - interval '1 second' WHERE state = 'queued'`);
      return head.stop();
    };
    await send(made);
    expect((await becomes(made.id, 'not sent')).burn!.fault).toMatch(/could not be sent at once/);
    expect(head.sent).toEqual([]);
  });

  it('leaves what was burnt before where only the rest could not be sent', async () => {
    const { id, burn } = await running();
    head.says = { state: 'stopped', cellsDone: [0, 1, 2] };
    await becomes(id, 'stopped');
    head.away = true;
    await settle(burn, 'resume');
    const after = await rig.until(
      () => coupon(id),
      ({ burn: now }) => now!.state === 'stopped' && now!.fault !== '',
    );
    expect(after.burn).toMatchObject({ cellsDone: [0, 1, 2], fault: expect.stringMatching(/Nothing was sent/) });
    expect((await settle(burn, 'partly')).body).toMatchObject({ stage: 'burnt', burntCells: [0, 1, 2] });
  });
});

describe('what nobody can know', () => {
  it('a lost answer: the controller is asked what it has, and is sent nothing again', async () => {
    head.mute = true;
    const { burn } = await running();
    expect(head.sent).toHaveLength(1);
    expect(await row(burn.id)).toMatchObject({ attempt: 1, heard: true });
  });

  it('a lost answer of a controller that knows of none stays open until somebody has looked', async () => {
    head.mute = true;
    head.says = { program: '', state: 'idle' };
    const { body } = await send(await newCoupon());
    await becomes(body.id, 'sending');
    await rig.until(
      async () => head.sent.length,
      (sent) => sent === 1,
    );
    expect((await coupon(body.id)).burn!.state).toBe('sending');
    soon();
    const { burn } = await becomes(body.id, 'unknown');
    expect(head.sent).toHaveLength(1);
    expect((await send(body)).body.detail).toMatch(/settle that run first/);
    expect((await settle(burn!, 'partly')).body.faults[0]).toMatchObject({ path: 'seen' });
    expect((await settle(burn!, 'nothing')).body).toMatchObject({ firing: null, burn: { state: 'nothing' } });
  });

  it('a controller switched off and on in the middle: cells are as somebody found them', async () => {
    const { id, burn } = await running();
    head.says = { cellsDone: [0, 1, 2], cell: 3 };
    await rig.until(
      () => coupon(id),
      ({ burn: now }) => now!.cellsDone.length === 3,
    );
    head.says = { program: '', state: 'idle' };
    await becomes(id, 'unknown');
    const { tasks } = (await rig.call('GET', '/api/today')).body;
    expect(tasks[0]).toMatchObject({
      title: expect.stringMatching(/^Look at the machine: K-/),
      text: expect.stringMatching(/^3 burnt · nobody/),
      urgent: true,
    });
    expect((await becomes(id, 'unknown')).burn).toMatchObject({ cellsDone: [0, 1, 2] });
    expect((await settle(burn, 'nothing')).body.detail).toMatch(/told of 3 burnt/);
    expect((await settle(burn, 'partly', 2)).body.faults[0].message).toMatch(/told of 3 burnt whole: count again/);
    expect((await settle(burn, 'partly', 13)).body.faults[0].message).toMatch(/Only 12 were/);
    const { body } = await settle(burn, 'partly', 5);
    expect(body).toMatchObject({ burntCells: [0, 1, 2, 3, 4], burn: { state: 'partly', cellsCut: [5] } });
  });

  it('one that keeps silent is asked again; what is asked of it and not answered is said', async () => {
    const { id, burn } = await running();
    head.away = true;
    await becomes(id, 'silent');
    await act(burn, 'stop');
    const told = await rig.until(
      () => coupon(id),
      ({ burn: now }) => now!.fault !== '',
    );
    expect(told.burn).toMatchObject({
      state: 'silent',
      asked: null,
      fault: expect.stringMatching(/by its own switch/),
    });
    head.away = false;
    head.says = { state: 'running', cellsDone: [0] };
    expect((await becomes(id, 'running')).burn!.cellsDone).toEqual([0]);
    expect([head.sent.length, head.told]).toEqual([1, []]);
  });

  it('going on is passed on once, and not when whoever asked has turned away', async () => {
    const { id, burn } = await running();
    head.says = { state: 'waiting', message: 'set focus offset 1 mm' };
    await becomes(id, 'waiting');
    await Promise.all([act(burn, 'resume'), act(burn, 'resume')]);
    await rig.until(
      async () => head.told.length,
      (told) => told > 0,
    );
    await rig.sql(
      `UPDATE burns SET asked = 'resume', asked_at = '${new Date(rig.now.getTime() - 6000).toISOString()}'`,
    );
    const late = await rig.until(
      () => coupon(id),
      ({ burn: now }) => now!.fault !== '',
    );
    expect(late.burn!.fault).toMatch(/not told to go on in time/);
    expect(head.told.every((told) => told === 'resume')).toBe(true);
    expect(head.told.length).toBeLessThanOrEqual(2);
  });
});

/** Another server on the same database and the same head. */
async function otherServer() {
  const sequelize = connect(rig.url);
  const jobs = await openJobQueue(sequelize, () => undefined);
  const deps = {
    ...{ sequelize, models: defineModels(sequelize), files: folderStore('/nowhere'), devices: rig.devices, jobs },
    ...{ clock: () => rig.now, log: pino({ level: 'silent' }), hosts: [], pool: INLINE_POOL },
  };
  const stop = await startWork(deps, { lookEveryMs: 20 });
  return async () => {
    await stop();
    await sequelize.close();
  };
}

describe('a server that is killed', () => {
  it('while it sends: another takes it over once its lease has run out, asks, and sends nothing again', async () => {
    const made = await newCoupon();
    // The first server never hears how its sending ended.
    head.meanwhile = (program) => {
      head.sent.push(program);
      return new Promise(() => undefined);
    };
    const { body } = await send(made);
    await becomes(made.id, 'sending');
    await rig.sql(`UPDATE burns SET lease_until = now() - interval '1 second' WHERE id = '${body.burn.id}'`);
    const stop = await otherServer();
    await becomes(made.id, 'running');
    head.says = { state: 'done', cellsDone: Array.from({ length: 12 }, (_, i) => i) };
    await becomes(made.id, 'done');
    expect(head.sent).toHaveLength(1);
    await stop();
  });

  it('two servers that find it at once: one holds it, and it is sent once', async () => {
    const stops = await Promise.all([otherServer(), otherServer()]);
    head.whenSent = {};
    for (let i = 0; i < 3; i += 1) {
      const { id } = await running();
      head.says = { state: 'done', cellsDone: Array.from({ length: 12 }, (_, k) => k) };
      await becomes(id, 'done');
    }
    expect(head.sent.map(({ name }) => name.endsWith(' 1'))).toEqual([true, true, true]);
    for (const stop of stops) await stop();
  });
});
