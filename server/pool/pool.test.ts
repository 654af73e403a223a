import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import type { SheetEntries } from '@unto/contract';
import { threadPool } from './pool.js';

const WORKER = join(import.meta.dirname, 'worker.ts');
const pool = threadPool(WORKER, { withinMs: 30_000 }, ['--import', 'tsx']);
const hasty = threadPool(WORKER, { withinMs: 300 }, ['--import', 'tsx']);
afterAll(() => Promise.all([pool.close(), hasty.close()]));

const SHEET: SheetEntries = {
  mode: 'mixed',
  ...{ sheetWidthMm: 1500, sheetHeightMm: 1500, labelWidthMm: null, labelHeightMm: null },
  ...{ gapMm: 3, marginMm: 5, keepOuts: [], pieceWidthMm: 40, pieceHeightMm: 25, pitchXMm: null, pitchYMm: null },
  ...{ firstXMm: null, firstYMm: null, shiftMm: 0, testPlaces: 0 },
  pieces: [{ label: 'tag', widthMm: 40, heightMm: 25, count: 20, test: false }],
};
const keepOuts = Array.from({ length: 200 }, (_, i) => ({
  ...{ xMm: (i % 20) * 70, yMm: Math.floor(i / 20) * 140, widthMm: 9, heightMm: 11 },
}));
const HEAVY: SheetEntries = {
  ...SHEET,
  keepOuts,
  pieces: Array.from({ length: 40 }, (_, i) => ({
    ...{ label: `p${i}`, widthMm: 20 + i, heightMm: 15 + (i % 7), count: 50, test: false },
  })),
};
const bytes = (text: string) => new TextEncoder().encode(text);

describe('a pool of threads', () => {
  it('does the work beside, so that whoever waits for something else goes on', async () => {
    await pool.run('layOutSheet', SHEET);
    let worst = 0;
    let last = performance.now();
    const beat = setInterval(() => {
      worst = Math.max(worst, performance.now() - last);
      last = performance.now();
    }, 5);
    const { places } = await pool.run('layOutSheet', HEAVY);
    clearInterval(beat);
    expect(places.length).toBeGreaterThan(500);
    expect(worst).toBeLessThan(500);
  });

  it('hands on a refusal with the place of its fault', async () => {
    await expect(pool.run('readLedger', { format: 'json', bytes: bytes('{') })).rejects.toMatchObject({
      kind: 'invalid-input',
      faults: [{ path: 'text' }],
    });
    await expect(pool.run('readLedger', { format: 'csv', bytes: bytes('a,b\r\n1') })).rejects.toMatchObject({
      kind: 'invalid-input',
    });
  });

  it('breaks off what takes too long, and works on after it', async () => {
    const file = bytes(`{"format":"unto-ledger","version":1,"records":[${'{"a":1},'.repeat(900_000)}{}]}`);
    await expect(hasty.run('readLedger', { format: 'json', bytes: file })).rejects.toMatchObject({ kind: 'too-heavy' });
    // The next thread takes longer to come up than this pool lets anything take: it is asked until it is there.
    let places = 0;
    for (let i = 0; i < 90 && !places; i += 1)
      places = (await hasty.run('layOutSheet', SHEET).catch(() => ({ places: [] }))).places.length;
    expect(places).toBeGreaterThan(10);
  }, 60_000);
});
