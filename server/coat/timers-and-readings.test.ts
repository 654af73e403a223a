import { changeableFields } from '@unto/contract';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { Scale, ScaleReading } from '@unto/contract';
import {
  fillInventory,
  openTestRig,
  runBody,
  storeBody,
  ticketBody,
  weighingBody,
  type TestRig,
} from '../testing/rig.js';

let rig: TestRig;
let ids: Record<string, string>;
let ticket: string;
const DAY = 86_400_000;

beforeAll(async () => {
  rig = await openTestRig({ works: true });
  ids = await fillInventory(rig);
});
afterAll(() => rig.close());
beforeEach(async () => {
  const body = ticketBody(ids);
  ticket = body.id;
  const { body: made } = await rig.call('POST', '/api/tickets', body);
  const fields = changeableFields(made);
  await rig.call('PUT', `/api/tickets/${ticket}`, {
    ...fields,
    compoundId: ids['compound'],
    choiceReason: 'usual',
    state: 'open',
  });
});

const later = (ms: number) => (rig.now = new Date(rig.now.getTime() + ms));
const page = async () => (await rig.call('GET', `/api/tickets/${ticket}`)).body;
const clock = (change: object = {}) => ({ id: randomUUID(), kind: 'dry', label: 'tray 1', minimumS: 240, ...change });
const startTimer = (change: object = {}) => rig.call('POST', `/api/tickets/${ticket}/timers`, clock(change));
const stored = (change: object = {}) => ({ id: randomUUID(), pieces: 12, place: 'rack 2', note: '', ...change });
const LOOK = { outcome: 'taken up', dry: true, untouched: true, reason: '' };

describe('timers', () => {
  it('run several at once, and one of a name only once', async () => {
    const first = await startTimer();
    expect(first.status).toBe(200);
    expect(await startTimer()).toMatchObject({ status: 409, body: { detail: expect.stringMatching(/runs already/) } });
    expect((await startTimer({ label: 'tray 2' })).status).toBe(200);
    expect((await startTimer({ kind: 'shake', minimumS: 75 })).status).toBe(200);
    const { body } = await rig.call('GET', '/api/timers');
    expect(body.filter(({ ticketId }: { ticketId: string }) => ticketId === ticket)).toHaveLength(3);
    expect(body.at(-1).ticketTitle).toBe('Orchid bed tags');
  });

  it('cannot be called dry before the minimum, and not twice with different ends', async () => {
    const { body: dry } = await startTimer();
    later(239_000);
    const early = await rig.call('PUT', `/api/timers/${dry.id}/end`, { outcome: 'passed' });
    expect(early).toMatchObject({ status: 409, body: { detail: 'Not before its minimum: 1 s to go.' } });
    later(1000);
    expect((await rig.call('PUT', `/api/timers/${dry.id}/end`, { outcome: 'passed' })).status).toBe(200);
    expect((await rig.call('PUT', `/api/timers/${dry.id}/end`, { outcome: 'passed' })).status).toBe(200);
    expect((await rig.call('PUT', `/api/timers/${dry.id}/end`, { outcome: 'dropped' })).status).toBe(409);
  });

  it('a drying clock is never shorter than the compound’s record says', async () => {
    const { status, body } = await startTimer({ minimumS: 200 });
    expect(status).toBe(422);
    expect(body.faults[0]).toMatchObject({ path: 'minimumS', message: expect.stringMatching(/no less than 240 s/) });
  });

  it('of two trays let what is dry be fired while the other dries, and one rinsed off takes only its own', async () => {
    const end = (id: string, outcome: string) => rig.call('PUT', `/api/timers/${id}/end`, { outcome });
    const lay = async (tray: number, pieces: number) => {
      const { body: timer } = await startTimer({ label: `tray ${tray}`, tray, pieces });
      const weighing = weighingBody(ids, { pieces, tray });
      expect((await rig.call('POST', `/api/tickets/${ticket}/weighings`, weighing)).body.tray).toBe(tray);
      return timer.id as string;
    };
    const first = await lay(1, 6);
    const second = await lay(2, 4);
    later(240_000);
    await end(first, 'passed');
    expect((await page()).progress).toMatchObject({ coatedPieces: 10, dryingPieces: 4 });
    const run = (pieces: number) => rig.call('POST', '/api/runs', runBody(ticket, { pieces }));
    expect((await run(7)).body.faults?.[0]?.message ?? (await run(7)).body.detail).toMatch(
      /6 coated pieces are ready, 7 asked; 4 still dry/,
    );
    expect((await run(6)).status).toBe(200);
    await end(second, 'dropped');
    expect((await page()).progress).toMatchObject({ coatedPieces: 6, dryingPieces: null, unclockedPieces: 0 });
  });

  it('a clock set back on the server adds nothing to what is left', async () => {
    const { body: dry } = await startTimer();
    later(-5 * DAY);
    const early = await rig.call('PUT', `/api/timers/${dry.id}/end`, { outcome: 'passed' });
    expect(early.body.detail).toBe('Not before its minimum: 240 s to go.');
    later(5 * DAY);
  });

  it('a mix may be used up early; a coat laid after its pot life is kept and says so', async () => {
    const { body: mix } = await startTimer({ kind: 'pot', label: 'mix of 40 mL', minimumS: 4 * 3600 });
    later(4 * 3_600_000 + 1000);
    const weighing = await rig.call('POST', `/api/tickets/${ticket}/weighings`, weighingBody(ids));
    expect(weighing).toMatchObject({ status: 200, body: { afterPotLife: true } });
    const { body: day } = await rig.call('GET', '/api/today');
    expect(day.tasks.find(({ key }: { key: string }) => key === `clock-${mix.id}`)).toMatchObject({
      title: 'Use up or throw away, mix of 40 mL',
      urgent: true,
    });
    const { body: second } = await startTimer({ kind: 'pot', label: 'mix of 10 mL', minimumS: 4 * 3600 });
    expect((await rig.call('PUT', `/api/timers/${second.id}/end`, { outcome: 'passed' })).status).toBe(200);
    await rig.call('PUT', `/api/timers/${mix.id}/end`, { outcome: 'dropped' });
    const fresh = await rig.call('POST', `/api/tickets/${ticket}/weighings`, weighingBody(ids));
    expect(fresh.body.afterPotLife).toBe(false);
  });
});

describe('readings of a coat', () => {
  const read = (kind: string, entries: object, weighingId: string | null = null) =>
    rig.call('POST', `/api/tickets/${ticket}/coat-readings`, {
      id: randomUUID(),
      kind,
      entries,
      weighingId,
      note: '',
    });

  it('keeps a comb and the looks with the film worked out on the server', async () => {
    const { body } = await read('comb', { wettedUm: 25, dryToothUm: 40 });
    expect(body[0]).toMatchObject({ kind: 'comb', film: { unit: 'µm', grade: 'stated' }, findings: [] });
    expect(body[0].film.interval.low).toBeCloseTo(7.5, 9);
    expect(body[0].film.interval.high).toBeCloseTo(12, 9);
    const looks = await read('inspection', { showing: 'patches', runs: 'none', lumps: 'none', lamp: null });
    expect(looks.body[1]).toMatchObject({ kind: 'inspection', findings: ['ground shows'], film: { grade: 'usual' } });
    const rows = await rig.sql<{ kind: string }>(
      `SELECT kind FROM coat_readings WHERE ticket_id = '${ticket}' ORDER BY at, kind`,
    );
    expect(rows.map(({ kind }) => kind)).toEqual(['comb', 'inspection']);
    await expect(rig.sql(`DELETE FROM coat_readings WHERE ticket_id = '${ticket}'`)).rejects.toThrow(/append-only/);
  });

  it('refuses teeth the wrong way round, words nobody knows, and the weighing of another ticket', async () => {
    expect((await read('comb', { wettedUm: 40, dryToothUm: 25 })).body.detail).toMatch(/must be the higher one/);
    expect((await read('inspection', { showing: 'a lot', runs: 'none', lumps: 'none', lamp: null })).status).toBe(422);
    const mine = await rig.call('POST', `/api/tickets/${ticket}/weighings`, weighingBody(ids));
    const other = ticketBody(ids);
    await rig.call('POST', '/api/tickets', other);
    const elsewhere = await rig.call('POST', `/api/tickets/${other.id}/coat-readings`, {
      ...{ id: randomUUID(), kind: 'comb', entries: { wettedUm: 25, dryToothUm: 40 }, note: '' },
      weighingId: mine.body.id,
    });
    expect(elsewhere.body.detail).toMatch(/no compound/);
    expect((await page()).coatReadings).toEqual([]);
  });
});

describe('weighings', () => {
  it('count strokes, and the trend of a compound is in them', async () => {
    later(1000);
    await rig.call('POST', `/api/tickets/${ticket}/weighings`, weighingBody(ids, { strokes: 8 }));
    expect((await page()).strokeSamples[0]).toMatchObject({ strokes: 8 });
    const { body } = await rig.call('GET', `/api/coat-trend?compoundId=${ids['compound']}`);
    expect(body.records[0]).toMatchObject({ ticketTitle: 'Orchid bed tags', strokes: 8, by: rig.operator });
    expect((await rig.call('GET', `/api/coat-trend?compoundId=${randomUUID()}`)).body.records).toEqual([]);
    const [can] = (await page()).containersLeft;
    expect(can).toMatchObject({ containerId: ids['container'], weighed: true });
    const zero = await rig.call('POST', `/api/tickets/${ticket}/weighings`, weighingBody(ids, { strokes: 0 }));
    expect(zero.status).toBe(422);
  });
});

describe('stored coats', () => {
  beforeEach(() => rig.call('POST', `/api/tickets/${ticket}/weighings`, weighingBody(ids, { pieces: 48 })));

  it('are stored dry, looked at two days later, and only then fired', async () => {
    const { body: dry } = await startTimer();
    expect((await rig.call('POST', `/api/tickets/${ticket}/stored-coats`, stored())).body.detail).toMatch(
      /still dries/,
    );
    later(240_000);
    await rig.call('PUT', `/api/timers/${dry.id}/end`, { outcome: 'passed' });
    const { body: kept } = await rig.call('POST', `/api/tickets/${ticket}/stored-coats`, stored({ pieces: 40 }));
    expect(kept).toMatchObject({ pieces: 40, state: 'good', handling: 'can be touched', compoundName: 'Corvid Film' });
    expect(Date.parse(kept.keepUntil) - rig.now.getTime()).toBe(30 * DAY);
    const line = (await page()).stations.find(({ station }: { station: string }) => station === 'coat');
    expect(line).toMatchObject({ state: 'running', word: '40 stored' });
    later(2 * DAY);
    const run = await rig.call('POST', '/api/runs', runBody(ticket, { pieces: 10 }));
    expect(run).toMatchObject({
      status: 409,
      body: { detail: expect.stringMatching(/8 coated pieces are ready, 10 asked; 40 lie stored/) },
    });
    const end = (change: object) => rig.call('PUT', `/api/stored-coats/${kept.id}/end`, { ...LOOK, ...change });
    expect((await end({ dry: false })).body.faults[0].path).toBe('dry');
    expect((await end({ untouched: false })).body.faults[0].path).toBe('untouched');
    expect((await end({})).body).toMatchObject({ outcome: 'taken up', endedBy: rig.operator });
    expect((await end({})).status).toBe(200);
    expect((await end({ outcome: 'rinsed off' })).status).toBe(409);
    expect((await rig.call('POST', '/api/runs', runBody(ticket, { pieces: 10 }))).status).toBe(200);
  });

  it('past their date want a reason, show on Today, and may be rinsed off', async () => {
    const { body: kept } = await rig.call('POST', `/api/tickets/${ticket}/stored-coats`, stored());
    later(31 * DAY);
    const { body: day } = await rig.call('GET', '/api/today');
    expect(day.tasks.find(({ key }: { key: string }) => key === `stored-${kept.id}`)).toMatchObject({ urgent: true });
    const line = (await page()).stations.find(({ station }: { station: string }) => station === 'coat');
    expect(line).toMatchObject({ state: 'attention', word: '12 past date' });
    const { body: refused } = await rig.call('PUT', `/api/stored-coats/${kept.id}/end`, LOOK);
    expect(refused.faults[0]).toMatchObject({ path: 'reason', message: expect.stringMatching(/Say why/) });
    const taken = await rig.call('PUT', `/api/stored-coats/${kept.id}/end`, { ...LOOK, reason: 'kept in a dry box' });
    expect(taken.body).toMatchObject({ outcome: 'taken up', endReason: 'kept in a dry box' });
  });

  it('never more than the ticket has, and none without a compound', async () => {
    expect(
      (await rig.call('POST', `/api/tickets/${ticket}/stored-coats`, stored({ pieces: 49 }))).body.faults[0].path,
    ).toBe('pieces');
    const bare = ticketBody(ids);
    await rig.call('POST', '/api/tickets', bare);
    expect((await rig.call('POST', `/api/tickets/${bare.id}/stored-coats`, stored())).status).toBe(409);
  });

  it('keep no date where the maker names none', async () => {
    const compound = randomUUID();
    await rig.call('POST', '/api/inventory', {
      id: compound,
      kind: 'compound',
      body: { ...storeBody('compound'), name: 'Plain', shelfLifeDays: null },
    });
    const fields = changeableFields((await page()).ticket);
    await rig.call('PUT', `/api/tickets/${ticket}`, { ...fields, compoundId: compound });
    const { body } = await rig.call('POST', `/api/tickets/${ticket}/stored-coats`, stored());
    expect(body).toMatchObject({ keepUntil: null, state: 'no date' });
  });
});

describe('pictures of a dry coat', () => {
  const JPEG = Uint8Array.from([0xff, 0xd8, 0xff, 0xe0, 1, 2, 3]);
  const film = (spoilt: (x: number, y: number) => boolean) =>
    Array.from({ length: 44 * 28 }, (_, i) => (spoilt(i % 44, Math.floor(i / 44)) ? 0.4 : 1));
  const picture = (fileHash: string, change: object = {}, map: object = {}) => ({
    ...{ id: randomUUID(), weighingId: null, decision: 'accepted', note: '', ...change },
    entries: {
      ...{ fileHash, widthMm: 44, heightMm: 28, bare: { x: 1, y: 2 }, good: null },
      corners: [0, 1, 2, 3].map((x) => ({ x, y: x })),
      map: {
        ...{ columns: 44, rows: 28, cellMm: 1, noise: 0.01, bareRead: true, lightFrom: 'surround' },
        ...{ film: film(() => false), ...map },
      },
    },
  });
  const send = (body: object) => rig.call('POST', `/api/tickets/${ticket}/coat-pictures`, body);

  it('come from the camera, are kept as files, and judged here from their map', async () => {
    const ask = { ticketId: ticket, widthMm: 44, heightMm: 28 };
    expect(await rig.call('POST', '/api/devices/camera/picture', ask)).toMatchObject({ status: 502 });
    rig.devices.camera = { takePicture: async () => JPEG };
    const { picture: kept } = await rig.cameOf(rig.call('POST', '/api/devices/camera/picture', ask));
    expect(kept).toMatchObject({ mediaType: 'image/jpeg', bytes: 7 });
    const part = { at: 'camera', kind: 'coat', batch: ticket, widthMm: 44, heightMm: 28, ground: 'light' };
    expect(rig.scenes).toEqual([part]);
    const thin = film((x, y) => x > 30 && y > 18);
    const { body } = await send(picture(kept!.hash, { decision: 'touch up' }, { film: thin }));
    expect(body[0]).toMatchObject({
      decision: 'touch up',
      judgement: { advice: 'touch up', places: [{ fault: 'thin spot' }] },
    });
    expect((await page()).coatPictures).toHaveLength(1);
    rig.devices.camera = { takePicture: () => Promise.reject(new Error('gone')) };
    const failed = await rig.cameOf(rig.call('POST', '/api/devices/camera/picture', ask));
    expect(failed).toMatchObject({ state: 'failed', fault: expect.stringMatching(/camera does not answer/) });
    rig.devices.camera = null;
  });

  it('refuse a file that is not kept and a map with cells missing', async () => {
    expect((await send(picture('b'.repeat(64)))).body.detail).toMatch(/not kept here/);
    expect((await send(picture('b'.repeat(64), {}, { rows: 27 }))).body.detail).toMatch(/cells are missing/);
  });

  it('a coat rinsed off after its picture counts no more as coated', async () => {
    later(1000);
    const { body: weighing } = await rig.call('POST', `/api/tickets/${ticket}/weighings`, weighingBody(ids));
    const line = async () =>
      (await page()).stations.find(({ station }: { station: string }) => station === 'coat').word;
    expect(await line()).toBe('10 not clocked');
    const [file] = await rig.sql<{ hash: string }>('SELECT hash FROM stored_files LIMIT 1');
    await send(picture(file!.hash, { weighingId: weighing.id, decision: 'rinsed off' }));
    expect(await line()).toBe('to coat');
  });
});

describe('the scale', () => {
  const ask = (change: object = {}) =>
    rig.call('POST', '/api/devices/scale/weigh', {
      ...{ ticketId: ticket, containerId: ids['container'], what: 'container', moment: 'before', pieces: 10 },
      ...change,
    });
  const shows = (...readings: (ScaleReading | Error)[]): Scale => ({
    weigh: async () => {
      const next = readings.length > 1 ? readings.shift()! : readings[0]!;
      if (next instanceof Error) throw next;
      return next;
    },
  });
  const steady = (value: number, unit: 'g' | 'oz' = 'g') => ({ value, unit, stable: true });

  it('says when none is tied, and when it does not answer', async () => {
    expect((await rig.call('GET', '/api/devices')).body).toEqual({ scale: false, camera: false, controller: false });
    expect(await ask()).toMatchObject({ status: 502, body: { type: 'device-away' } });
    rig.devices.scale = shows(new Error('unplugged'));
    expect((await rig.call('GET', '/api/devices')).body).toEqual({ scale: true, camera: false, controller: false });
    expect((await rig.cameOf(ask())).fault).toMatch(/does not answer/);
  });

  it('waits until it has settled, in its own unit', async () => {
    rig.devices.scale = shows(
      { value: 312.9, unit: 'g', stable: false },
      steady(312.4),
      steady(312.41),
      steady(312.41),
    );
    expect((await rig.cameOf(ask())).weight).toMatchObject({ value: 312.41, unit: 'g' });
    rig.devices.scale = shows(steady(11.0196, 'oz'));
    expect((await rig.cameOf(ask())).weight).toMatchObject({ value: 11.0196, unit: 'oz' });
  });

  it('gives nothing from one that never settles, or stands below nought', async () => {
    rig.devices.scale = shows({ value: 312, unit: 'g', stable: false });
    expect(await rig.cameOf(ask())).toMatchObject({
      state: 'failed',
      weight: null,
      fault: expect.stringMatching(/does not settle/),
    });
    rig.devices.scale = shows(steady(-3.2));
    expect((await rig.cameOf(ask())).fault).toMatch(/shows -3.2 g. Empty the pan/);
  });
});
