import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { lightness, seededRandom, svgArtwork } from '@unto/core';
import { photographTray } from '../../simulators/camera/tray-photo.js';
import { paintedPiece, type PaintedPiece } from '../../simulators/testing/painted-piece.js';
import { fillInventory, openTestRig, runBody, ticketBody, type TestRig, keptFile } from '../testing/rig.js';

const LONG = { timeout: 60_000 };
let rig: TestRig;
let ids: Awaited<ReturnType<typeof fillInventory>>;
beforeAll(async () => {
  rig = await openTestRig();
  ids = await fillInventory(rig);
});
afterAll(() => rig.close());

/** A piece of 60 × 24 mm: the shop's blank of the ticket, and what is laid out on it. */
const TAG = {
  ...{ widthMm: 60, heightMm: 24, ground: 0.5, mark: 0.06 },
  marks: [
    [6, 6, 44, 9],
    [6, 12, 9, 19],
    [12, 14, 30, 19],
    [36, 13, 54, 19],
  ] as const,
};
const SVG = `<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="24mm" viewBox="0 0 60 24">${TAG.marks
  .map(([x0, y0, x1, y1]) => `<rect x="${x0}" y="${24 - y1}" width="${x1 - x0}" height="${y1 - y0}"/>`)
  .join('')}</svg>`;
const SHEET = {
  ...{ mode: 'rows', sheetWidthMm: 200, sheetHeightMm: 60, labelWidthMm: null, labelHeightMm: null, gapMm: 2 },
  ...{ marginMm: 2, keepOuts: [], pieceWidthMm: 60, pieceHeightMm: 24, pitchXMm: null, pitchYMm: null },
  ...{ firstXMm: null, firstYMm: null, shiftMm: 0, testPlaces: 0, pieces: [] },
};

const keeps = (name: string, content: string | Buffer) => keptFile(rig, name, content);
async function ran(laid = true): Promise<string> {
  const { body: ticket } = await rig.call('POST', '/api/tickets', ticketBody(ids, { pieces: 4 }));
  await rig.call('POST', `/api/tickets/${ticket.id}/sheets`, { id: randomUUID(), entries: SHEET });
  if (laid) {
    const artworkId = randomUUID();
    await rig.call('POST', `/api/tickets/${ticket.id}/artworks`, {
      ...{ id: artworkId, fileHash: await keeps('tag.svg', SVG), name: 'tag.svg' },
      entries: { unit: null, closed: 'filled', widthMm: null, darker: 128 },
    });
    const entries = {
      ...{ artworkId, xMm: 6, yMm: 6, turnDeg: 0, work: 'both', outlineFirst: false, numberFrom: 1, numberStep: 1 },
      ...{ fields: [], table: { columns: [], rows: [] } },
    };
    await rig.call('POST', `/api/tickets/${ticket.id}/layouts`, { id: randomUUID(), entries });
  }
  const run = runBody(ticket.id, { pieces: 4 });
  await rig.call('POST', '/api/runs', run);
  return run.id;
}
const photo = (changes: readonly Partial<PaintedPiece>[], seed = 3) =>
  photographTray({
    ...{ blanks: changes.map((change, i) => paintedPiece({ ...TAG, seed: i + seed, ...change })), fault: 'plain' },
    ...{ random: seededRandom(seed), size: { width: 2000, height: 1500 } },
  });
const reads = async (run: string, picture: Buffer, pieces = [1, 2, 3, 4]) =>
  rig.call('POST', `/api/runs/${run}/trays`, { id: randomUUID(), fileHash: await keeps('tray.jpg', picture), pieces });

describe('a picture of a tray of washed pieces', LONG, () => {
  it('is read against the artwork that was laid out, kept with what it tells of each, and never twice', async () => {
    const run = await ran();
    const picture = await photo([{}, { mark: 0.45 }, { strength: (u) => (u < 0.3 ? 0.5 : 1) }, {}]);
    const { status, body } = await reads(run, picture);
    expect(status, JSON.stringify(body)).toBe(200);
    const [reading] = body;
    expect(reading.pieces.map(({ piece }: { piece: number }) => piece)).toEqual([1, 2, 3, 4]);
    const [first, second, third] = reading.pieces;
    expect(Math.abs(first.contrast - (lightness(0.5) - lightness(0.06)))).toBeLessThan(4);
    expect(first.findings).toEqual([]);
    expect(second.findings[0]).toMatchObject({ kind: 'washed off whole' });
    expect(third.findings[0]).toMatchObject({ kind: 'pale along one edge', spot: { x: expect.any(Number) } });
    expect(first.corners).toHaveLength(4);
    expect((await rig.call('GET', `/api/runs/${run}/trays`)).body).toEqual(body);
    const other = await ran();
    expect((await reads(other, picture)).body.faults[0]).toMatchObject({ path: 'fileHash' });
    // What a picture proposes is a fault only once somebody says so.
    const said = { id: randomUUID(), piece: 2, fault: 'washed off whole', spot: null };
    expect((await rig.call('GET', `/api/runs/${run}/sample`)).body.faults).toEqual([]);
    expect((await rig.call('POST', `/api/runs/${run}/piece-faults`, said)).body.faults).toHaveLength(1);
  });

  it('beside which what was to be marked on a piece is drawn, from the upper left of it all', async () => {
    const run = await ran();
    const { body } = await rig.call('GET', `/api/runs/${run}/drawing?piece=2`);
    const shape = svgArtwork(SVG, { unit: null, closed: 'filled', widthMm: null });
    const { widthMm, heightMm, paths } = body.drawing;
    expect([widthMm, heightMm, paths.length]).toEqual([shape.widthMm, shape.heightMm, shape.shapes.length]);
    expect((await rig.call('GET', `/api/runs/${run}/drawing?piece=5`)).body.faults[0].message).toMatch(/there is no 5/);
    expect((await rig.call('GET', `/api/runs/${await ran(false)}/drawing?piece=1`)).body).toEqual({ drawing: null });
  });

  it('is refused with the words of what is wrong with it, and nothing is kept of it', async () => {
    const run = await ran();
    const three = await reads(run, await photo([{}, {}, {}], 9));
    expect([three.status, three.body.faults[0].message]).toEqual([
      422,
      expect.stringMatching(/^3 pieces lie there, 4 were looked for/),
    ]);
    const cut = (await photo([{}, {}], 4)).subarray(0, 4000);
    expect((await reads(run, cut, [1, 2])).body.faults[0].message).toMatch(/damaged/);
    expect((await reads(run, await photo([{}, {}], 5), [1, 9])).body.faults[0].message).toMatch(/of 4 pieces/);
    expect((await reads(run, await photo([{}, {}], 5), [2, 2])).body.faults[0].message).toMatch(/lies there once/);
    expect((await rig.call('GET', `/api/runs/${run}/trays`)).body).toEqual([]);
    const bare = await reads(await ran(false), await photo([{}, {}], 6), [1, 2]);
    expect([bare.status, bare.body.detail]).toEqual([409, expect.stringMatching(/bring the artwork at Place/)]);
  });
});
