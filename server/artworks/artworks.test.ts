import { changeableFields } from '@unto/contract';
import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { readProgram } from '../../simulators/burn/index.js';
import { fillInventory, openTestRig, runBody, ticketBody, type TestRig, bringFile } from '../testing/rig.js';

let rig: TestRig;
let ids: Awaited<ReturnType<typeof fillInventory>>;
beforeAll(async () => {
  rig = await openTestRig();
  ids = await fillInventory(rig);
});
afterAll(() => rig.close());

let ticketId: string;
beforeEach(async () => {
  ticketId = (await rig.call('POST', '/api/tickets', ticketBody(ids, { pieces: 6 }))).body.id;
});

const keeps = (name: string, content: string | Buffer) => bringFile(rig, name, content);
const SAID = { unit: null, closed: 'filled', widthMm: null, darker: 128 };
const brings = async (name: string, content: string | Buffer, said: object = {}, ticket = ticketId) =>
  rig.call('POST', `/api/tickets/${ticket}/artworks`, {
    ...{ id: randomUUID(), fileHash: (await keeps(name, content)).body.hash, name, entries: { ...SAID, ...said } },
  });
/** A square of 10 mm with a hole of 4 mm, 20 mm from anything else: 12 × 10 mm in all. */
const SVG =
  '<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="30mm" viewBox="0 0 40 30"><path fill-rule="evenodd" d="M5 5h12v10h-12zM9 8h4v4h-4z"/></svg>';
const ENTRIES = {
  ...{ artworkId: null, xMm: 3, yMm: 2, turnDeg: 0, work: 'both', outlineFirst: false, numberFrom: 1, numberStep: 1 },
  ...{ fields: [] as object[], table: { columns: [] as string[], rows: [] as string[][] } },
};
const FIELD = { kind: 'letters', says: 'Bed {bed}', xMm: 3, yMm: 14, heightMm: 3, widthMm: 20, align: 'left' };
const BEDS = { columns: ['bed'], rows: ['1', '2', '3', '4', '5', '6'].map((bed) => [bed]) };
const lays = (entries: object, ticket = ticketId) =>
  rig.call('POST', `/api/tickets/${ticket}/layouts`, { id: randomUUID(), entries: { ...ENTRIES, ...entries } });
const page = async () => (await rig.call('GET', `/api/tickets/${ticketId}`)).body;

describe('artwork brought to a ticket', () => {
  it('is measured by what is in the file, kept with what was left out, and drawn from our own geometry', async () => {
    const { status, body } = await brings(
      'tag.svg',
      SVG.replace('<path', '<script>alert(1)</script><text>A</text><path'),
    );
    expect(status, JSON.stringify(body)).toBe(200);
    expect(body).toMatchObject({
      kind: 'SVG',
      name: 'tag.svg',
      said: [expect.stringMatching(/1 × scripts, 1 × letters/)],
    });
    expect(body.measure).toMatchObject({
      widthMm: expect.closeTo(12, 3),
      heightMm: expect.closeTo(10, 3),
      filledMm2: expect.closeTo(104, 0),
    });
    expect(body.measure.smallestStroke.mm).toBeCloseTo(3, 1);
    const { body: drawing } = await rig.call('GET', `/api/artworks/${body.id}/drawing`);
    expect(drawing.paths).toEqual([
      { as: 'marked', evenodd: 'evenodd', d: expect.stringMatching(/^M0 0L12 0L12 10L0 10L0 0ZM4 3/) },
    ]);
    expect((await page()).artworks.map(({ id }: { id: string }) => id)).toEqual([body.id]);
  });

  it('a DXF without its unit is asked about where it happened; a picture by how large it is', async () => {
    const dxf = '0\nSECTION\n2\nENTITIES\n0\nCIRCLE\n8\n0\n10\n0\n20\n0\n40\n1\n0\nENDSEC\n0\nEOF\n';
    const asked = await brings('ring.dxf', dxf);
    expect([asked.status, asked.body.faults[0].path]).toEqual([422, 'entries']);
    expect(asked.body.detail).toMatch(/millimetres or inches/);
    expect((await brings('ring.dxf', dxf, { unit: 'in' })).body.measure.widthMm).toBeCloseTo(50.8, 1);
    const dots = sharp({ create: { width: 40, height: 20, channels: 3, background: '#fff' } }).composite([
      {
        input: await sharp({ create: { width: 20, height: 10, channels: 3, background: '#000' } })
          .png()
          .toBuffer(),
        left: 0,
        top: 0,
      },
    ]);
    const png = await dots.png().toBuffer();
    expect((await brings('logo.png', png)).body.detail).toMatch(/how large it is/);
    const read = await brings('logo.png', png, { widthMm: 20 });
    expect(read.body.measure).toMatchObject({ widthMm: expect.closeTo(10, 6), filledMm2: expect.closeTo(50, 1) });
    const said = await brings('logo.png', await dots.withMetadata({ density: 254 }).png().toBuffer());
    expect(said.body.measure.widthMm).toBeCloseTo(2, 2);
  });

  it('refuses what is no artwork, what is damaged, a text that is none, and too much', async () => {
    expect((await keeps('a.svg', 'hello')).body.detail).toMatch(/no PDF, PNG, JPEG, SVG, DXF or G-code inside/);
    expect((await keeps('a.svg', Buffer.alloc(50_000_000, 32))).status).toBe(413);
    const pdf = await brings('a.pdf', Buffer.from('%PDF-1.4 nothing'));
    expect([pdf.status, pdf.body.faults[0].path]).toEqual([422, 'fileHash']);
    const half = await brings('a.svg', SVG.slice(0, 150));
    expect([half.status, half.body.detail]).toEqual([422, expect.stringMatching(/well-formed/)]);
    const png = (
      await sharp({ create: { width: 9, height: 9, channels: 3, background: '#000' } })
        .png()
        .toBuffer()
    ).subarray(0, 60);
    expect((await brings('a.png', png)).body.detail).toMatch(/cannot be read/);
    expect(
      (
        await rig.call('POST', `/api/tickets/${ticketId}/artworks`, {
          id: randomUUID(),
          fileHash: 'a'.repeat(64),
          name: 'x',
          entries: SAID,
        })
      ).status,
    ).toBe(422);
    expect((await rig.call('GET', `/api/artworks/${randomUUID()}/drawing`)).status).toBe(404);
  });

  it('is never shown by the server as anything but text', async () => {
    const { body } = await keeps('tag.svg', SVG);
    const answer = await fetch(`${rig.base}/api/files/${body.hash}`);
    expect(answer.headers.get('content-type')).toMatch(/^text\/plain/);
    expect(answer.headers.get('x-content-type-options')).toBe('nosniff');
  });
});

describe('how a piece is marked', () => {
  it('becomes the size of the ticket’s mark; its times go by what rows sweep', async () => {
    const { body: artwork } = await brings('tag.svg', SVG);
    const { status, body } = await lays({ artworkId: artwork.id });
    expect(status, JSON.stringify(body)).toBe(200);
    const { ticket, layout } = await page();
    expect(layout.id).toBe(ticket.layoutId);
    expect(ticket).toMatchObject({
      ...{ markWidthMm: expect.closeTo(12, 3), markHeightMm: expect.closeTo(10, 3), version: 2 },
      ...{ sweptWidthMm: expect.closeTo(12, 3), sweptHeightMm: expect.closeTo(10, 1) },
    });
    // Sized by hand since, it is a rectangle again.
    const rest = changeableFields(ticket);
    const { body: changed } = await rig.call('PUT', `/api/tickets/${ticketId}`, { ...rest, markWidthMm: 20 });
    expect(changed).toMatchObject({ layoutId: null, sweptWidthMm: null });
    expect((await page()).layout).toBeNull();
  });

  it('tells before anything burns which pieces cannot be', async () => {
    const missing = await lays({ fields: [FIELD], table: { ...BEDS, rows: BEDS.rows.slice(0, 4) } });
    expect(missing.status).toBe(200);
    const none = await lays({ fields: [{ ...FIELD, says: '{bed}' }], table: { ...BEDS, rows: BEDS.rows.slice(0, 4) } });
    expect([none.status, none.body.faults[0]]).toEqual([
      422,
      { path: 'entries.fields', message: '“{bed}”: nothing to write. Pieces 5, 6.' },
    ]);
    const long = await lays({ fields: [{ ...FIELD, widthMm: 5 }], table: BEDS });
    expect(long.body.faults[0].message).toMatch(/wider than its room. Pieces 1, 2, 3, 4, 5, 6/);
    const strange = await lays({ fields: [{ ...FIELD, says: '{row}' }], table: BEDS });
    expect([strange.status, strange.body.detail]).toEqual([422, expect.stringMatching(/no column of the table/)]);
    expect((await lays({})).body.detail).toMatch(/Nothing is laid out/);
    const { body: other } = await rig.call('POST', '/api/tickets', ticketBody(ids, { pieces: 1 }));
    const { body: artwork } = await brings('tag.svg', SVG, {}, other.id);
    expect((await lays({ artworkId: artwork.id })).body.detail).toMatch(/another ticket/);
  });
});

describe('a program of pieces', () => {
  const asks = async (format: string, query = '') => {
    const answer = await fetch(`${rig.base}/api/tickets/${ticketId}/program/${format}${query}`, {
      headers: { 'x-unto-operator': rig.operator },
    });
    return { status: answer.status, text: await answer.text(), name: answer.headers.get('content-disposition') ?? '' };
  };
  const takesSetting = () =>
    rig.call('POST', '/api/recipes', {
      ...{
        id: randomUUID(),
        ticketId,
        kind: 'stated',
        couponIds: [],
        powerPercent: 80,
        speedMmPerS: 100,
        intervalMm: 0.1,
        passes: 1,
        hatches: 1,
      },
      ...{
        angleDeg: 0,
        fill: 'filled',
        focusOffsetMm: 0,
        frequencyKHz: null,
        pulseNs: null,
        directions: 'two-way',
        powerMode: 'constant',
      },
      ...{ air: 'off', extraction: 'on', seed: 7 },
    });
  const SHEET = {
    ...{
      mode: 'rows',
      sheetWidthMm: 100,
      sheetHeightMm: 60,
      labelWidthMm: null,
      labelHeightMm: null,
      gapMm: 2,
      marginMm: 5,
    },
    ...{
      keepOuts: [],
      pieceWidthMm: 38,
      pieceHeightMm: 22,
      pitchXMm: null,
      pitchYMm: null,
      firstXMm: null,
      firstYMm: null,
    },
    ...{ shiftMm: 0, testPlaces: 0, pieces: [] },
  };

  it('needs a layout and a setting, then holds every piece in its place with its own text', async () => {
    expect((await asks('gcode')).text).toMatch(/bring artwork at Place/);
    const { body: artwork } = await brings('tag.svg', SVG);
    await lays({ artworkId: artwork.id, fields: [FIELD], table: BEDS });
    expect((await asks('gcode')).text).toMatch(/take one at Prove/);
    const taken = await takesSetting();
    expect(taken.status, JSON.stringify(taken.body)).toBe(200);
    const kept = await rig.call('POST', `/api/tickets/${ticketId}/sheets`, { id: randomUUID(), entries: SHEET });
    expect(kept.body.places, JSON.stringify(kept.body)).toBe(4);
    const { status, text, name } = await asks('gcode');
    expect(status, text).toBe(200);
    expect(name).toMatch(/ticket-\d+\.gcode/);
    expect(text.match(/\(piece \d+: .*\)/g)).toEqual([
      '(piece 1: Bed 1)',
      '(piece 2: Bed 2)',
      '(piece 3: Bed 3)',
      '(piece 4: Bed 4)',
    ]);
    const lit = readProgram(text).filter(({ power }) => power > 0);
    expect(new Set(lit.map(({ power, speedMmPerS, scaled }) => `${power} ${speedMmPerS} ${scaled}`))).toEqual(
      new Set(['800 100 false']),
    );
    for (const { x0, y0 } of lit) expect([x0 > 5 && x0 < 95, y0 > 5 && y0 < 55]).toEqual([true, true]);
    expect((await asks('gcode', '?from=5')).text.match(/\(piece \d+/g)).toEqual(['(piece 5', '(piece 6']);
    expect((await asks('gcode', '?pieces=2,4')).text.match(/\(piece \d+/g)).toEqual(['(piece 2', '(piece 4']);
    expect((await asks('gcode', '?pieces=2,6')).text).toMatch(/not of one load/);
    expect((await asks('gcode', '?pieces=9')).text).toMatch(/pieces 1 to 6/);
    expect((await asks('gcode', '?pieces=x')).status).toBe(422);
    // A part of them again: nothing is fired but for the lower left quarter of the first.
    const part = await asks('gcode', '?pieces=1&region=3,2,5,4');
    const again = readProgram(part.text).filter(({ power }) => power > 0);
    expect(again.length).toBeGreaterThan(10);
    for (const { x0, y0, x1, y1 } of again)
      expect([Math.min(x0, x1) >= 8 - 1e-6, Math.max(x0, x1) <= 13 + 1e-6, y0 > 7 && y1 < 11]).toEqual([
        true,
        true,
        true,
      ]);
    expect((await asks('gcode', '?pieces=1&region=30,20,2,2')).text).toMatch(
      /Nothing of the artwork lies in that region/,
    );
    expect((await asks('gcode', '?region=1,2,3')).status).toBe(422);
    expect((await asks('gcode', '?region=1,2,0,3')).status).toBe(422);
  });

  it('goes where a picture showed the pieces, turned as they lie, once that was laid out last', async () => {
    const { body: artwork } = await brings('tag.svg', SVG);
    await lays({ artworkId: artwork.id, xMm: 0, yMm: 0 });
    await takesSetting();
    const laid = {
      ...{ fileHash: 'a'.repeat(64), pieceWidthMm: 38, pieceHeightMm: 22 },
      pieces: [
        { xMm: 20, yMm: 10, turnDeg: 0 },
        { xMm: 90, yMm: 60, turnDeg: 90 },
      ],
    };
    const place = (kind: string, entries: object) =>
      rig.call('POST', `/api/tickets/${ticketId}/place-readings`, {
        id: randomUUID(),
        kind,
        entries,
        decision: 'taken',
        note: '',
      });
    const kept = await place('laid', laid);
    expect(kept.status, JSON.stringify(kept.body)).toBe(200);
    expect(kept.body[0].result).toMatchObject({ xMm: 20, yMm: 10, widthMm: 70, heightMm: 88 });
    const { text } = await asks('gcode');
    expect(text.match(/\(piece \d+/g)).toEqual(['(piece 1', '(piece 2']);
    const second = readProgram(text).filter(({ power, cell }) => power > 0 && cell === 1);
    // 12 × 10 mm of artwork turned a quarter about 90, 60: from there to the left and upwards.
    expect(Math.min(...second.map(({ x0, x1 }) => Math.min(x0, x1)))).toBeGreaterThan(79.9);
    expect(Math.max(...second.map(({ x0, x1 }) => Math.max(x0, x1)))).toBeLessThan(90.1);
    expect(Math.max(...second.map(({ y0, y1 }) => Math.max(y0, y1)))).toBeLessThan(72.1);
    const cross = (xMm: number, yMm: number) => ({ xMm, yMm });
    const zero = await place('zero', {
      ...{ fileHash: 'a'.repeat(64), burnt: [cross(20, 20), cross(180, 120)], seen: [cross(10, 5), cross(170.1, 105)] },
    });
    expect(zero.status, JSON.stringify(zero.body)).toBe(200);
    expect((await page()).cardZero.result).toMatchObject({
      zeroX: { value: expect.closeTo(10, 0) },
      longer: { value: expect.closeTo(0.085, 2) },
    });
    expect((await place('laid', { ...laid, pieces: [] })).status).toBe(422);
    rig.now = new Date(rig.now.getTime() + 1000);
    await rig.call('POST', `/api/tickets/${ticketId}/sheets`, { id: randomUUID(), entries: SHEET });
    expect((await asks('gcode')).text.match(/\(piece \d+/g)).toHaveLength(4);
  });

  it('goes out as drawings too, with what they are marked with', async () => {
    await lays({ fields: [{ ...FIELD, kind: 'data matrix', heightMm: 8 }, FIELD], table: BEDS });
    await takesSetting();
    const svg = await asks('svg', '?pieces=3');
    expect(svg.text).toMatch(/<metadata>80 % power, 16\.67 % speed/);
    expect(svg.text).toContain('<title>3 Bed 3</title>');
    expect((await asks('dxf', '?pieces=3')).text).toContain('PIECE_3');
  });
});

describe('how long a piece takes', () => {
  it('follows the path of what is laid out, texts too', async () => {
    const taken = async () => (await page()).recipes[0].secondsPerPiece as number;
    await rig.call('POST', '/api/recipes', {
      ...{ id: randomUUID(), ticketId, kind: 'stated', couponIds: [], powerPercent: 80, speedMmPerS: 100 },
      ...{ intervalMm: 0.1, passes: 1, hatches: 1, angleDeg: 0, fill: 'filled', focusOffsetMm: 0, frequencyKHz: null },
      ...{ pulseNs: null, directions: 'two-way', powerMode: 'constant', air: 'off', extraction: 'on', seed: 7 },
    });
    const rectangle = await taken();
    const { body: artwork } = await brings('tag.svg', SVG);
    await lays({ artworkId: artwork.id });
    // 100 rows of 12 mm at 100 mm/s with ramps, instead of the whole 38 × 22.
    const plain = await taken();
    expect(plain).toBeLessThan(rectangle / 1.5);
    await lays({
      artworkId: artwork.id,
      fields: [{ ...FIELD, says: 'Bed {bed}, north wall', widthMm: null }],
      table: BEDS,
    });
    expect(await taken()).toBeGreaterThan(plain + 1);
  });

  it('measured runs teach a machine once there are four', async () => {
    const { body } = await rig.call('GET', `/api/machines/${ids.machine}/motion`);
    expect(body).toEqual({ measuredRuns: 0, learnt: null });
    expect((await rig.call('GET', `/api/machines/${randomUUID()}/motion`)).status).toBe(404);
    for (const [speed, seconds] of [
      [100, 300],
      [200, 260],
      [300, 270],
      [400, 320],
    ] as const)
      await rig.call(
        'POST',
        '/api/runs',
        runBody(ticketId, {
          pieces: 1,
          minutes: seconds / 60,
          speed: { value: speed, unit: 'mm/s' },
          reason: 'to time it',
        }),
      );
    const { body: now } = await rig.call('GET', `/api/machines/${ids.machine}/motion`);
    expect(now.measuredRuns).toBe(4);
    expect(now.learnt.runs).toBe(4);
    expect(now.learnt.accelerationMmPerS2.value).toBeGreaterThan(0);
  });
});
