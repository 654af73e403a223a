import { describe, expect, it } from 'vitest';
import { useApp } from './app.js';

const app = useApp();

/** Heights at the four corners and the middle of the mark. */
async function heights(all: readonly number[]): Promise<void> {
  for (const [i, height] of all.entries()) await app.page.type(`height-${i}-heightMm`, String(height));
}
const readings = (ticket: string, kind: string) =>
  app.sql(
    `SELECT decision, result, entries FROM place_readings WHERE ticket_id = '${ticket}' AND kind = '${kind}' ORDER BY at`,
  );

describe('a warped stainless strip', () => {
  let ticket = '';

  it('gets its depth of focus from a dot hunt on a scrap', async () => {
    const { page, sql } = app;
    await page.signIn('Tobin');
    await page.open('/tickets/new');
    await page.type('title', 'Mirror cell strip');
    await page.type('pieces', '2');
    await page.choose('substrate', 'Mirror stainless');
    await page.type('width', '64');
    await page.type('height', '8');
    await page.choose('head', 'Long bench CO2');
    await page.choose('lens', '38 mm');
    await page.press('keep');
    ticket = /tickets\/([0-9a-f-]{36})/.exec(await page.at(/\/choose$/))![1]!;
    await page.open(`/tickets/${ticket}/place`);
    await page.reads('tile-depth', /0\.300\s*mm[\s\S]*Stated/);
    await page.press('place-focus');
    const hunt = [
      [6, 0.17],
      [6.5, 0.138],
      [7, 0.125],
      [7.5, 0.139],
      [8, 0.171],
    ];
    for (const [i, [height, width]] of hunt.entries()) {
      await page.type(`dot-${i}-heightMm`, String(height));
      await page.type(`dot-${i}-widthMm`, String(width));
    }
    await page.reads('focus-height', /(6\.9\d|7\.0\d)\s*mm[\s\S]*Measured/);
    await page.accessible('Focus');
    await page.press('keep-focus');
    await page.reads('tile-depth', /0\.3\d+\s*mm[\s\S]*Measured/);
    const [row] = await readings(ticket, 'focus');
    expect(row!.result.height.value).toBeCloseTo(7, 1);
    expect(row!.entries.dots).toHaveLength(5);
    expect(
      await sql(
        `SELECT DISTINCT lens_id = (SELECT lens_id FROM tickets WHERE id = '${ticket}') AS own FROM place_readings WHERE ticket_id = '${ticket}'`,
      ),
    ).toEqual([{ own: true }]);
  });

  it('is refused when it would take too many steps', async () => {
    const { page } = app;
    await page.press('place-flatness');
    await heights([0, 3, 3.2, 0.1, 1.6]);
    await page.reads('flatness-advice', /Not like this\. It would take \d steps of focus/);
    await page.press('reject-piece');
    await page.says(/Kept: flatness, rejected/);
  });

  it('refocused in two steps', async () => {
    const { page } = app;
    await heights([0, 0.9, 0.95, 0.05, 0.4]);
    await page.reads('flatness-advice', /Clamp it, or mark in steps[\s\S]*2 steps of focus reach all of it/);
    await page.reads('focus-steps', /marks \d+ %[\s\S]*marks \d+ %/);
    expect(await page.text('warp-map')).toMatch(/64\smm/);
    await page.accessible('Flatness');
    await page.press('keep-flatness');
    await page.says(/Kept: flatness, in steps/);
  });

  it('and accepted once it lies flat, all three readings kept', async () => {
    const { page } = app;
    await heights([0, 0.1, 0.15, 0.05, 0.1]);
    await page.reads('flatness-advice', /Flat enough/);
    await page.press('keep-flatness');
    await page.says(/Kept: flatness, taken/);
    const rows = await readings(ticket, 'flatness');
    expect(rows.map(({ decision }) => decision)).toEqual(['rejected', 'in steps', 'taken']);
    expect(rows[1]!.result.steps).toHaveLength(2);
    expect(rows[2]!.result.inFocus).toMatchObject({ value: 100, grade: 'measured' });
    await page.press('place-checks');
    await page.reads(
      'place-history',
      /flatness, taken[\s\S]*flatness, in steps[\s\S]*flatness, rejected[\s\S]*focus, taken/,
    );
    await page.quiet();
  });
});

describe('a beaker on the rotary', () => {
  it('turns artwork into degrees, and says what lying still would take', async () => {
    const { page, sql } = app;
    const [row] = await sql(`SELECT id FROM tickets WHERE title = 'Rain-gauge beakers'`);
    await page.open(`/tickets/${row!.id}/place`);
    await page.press('place-round');
    await page.reads('mm-per-degree', /0\.7679\s*mm\/°/);
    await page.reads('degrees', /39\.07\s*°/);
    await page.reads('lying-still', /Lying still, [\d.]+\smm across are in focus/);
    await page.press('keep-round');
    await page.says(/Kept: round, taken/);
    const [kept] = await readings(row!.id, 'round');
    // π·88 − 30 mm are left at the seam.
    expect(kept!.result.seam.value).toBeCloseTo(Math.PI * 88 - 30, 6);
  });
});

describe('a sheet for the tags', () => {
  it('tells the pieces to have ready from what came out good before, and gives the layout as files', async () => {
    const { page, sql } = app;
    const [row] = await sql(`SELECT id, number, pieces FROM tickets WHERE title = 'Orchid bed tags'`);
    await page.open(`/tickets/${row!.id}/prepare`);
    await page.reads('tile-spares', /\d+\s*pieces?[\s\S]*Measured/);
    const spares = Number(/\d+/.exec(await page.text('tile-spares'))![0]);
    await page.reads('tile-ready', new RegExp(`${row!.pieces + spares}\\s*pieces`));
    await page.press('prepare-sheet');
    await page.reads('sheet-fault', /Measure the sheet/);
    await page.type('sheet-width', '300');
    await page.type('sheet-height', '200');
    await page.type('piece-width', '38');
    await page.type('piece-height', '22');
    // (300 − 10 + 1) ÷ 39 = 7.46; (200 − 10 + 1) ÷ 23 = 8.3
    await page.reads('sheet-gives', /56 pieces: 7 × 8/);
    await page.accessible('Sheet and jig');
    await page.press('sheet-svg');
    const svg = await page.downloaded(`sheet-${row!.number}.svg`);
    expect(svg).toMatch(/width="300mm" height="214mm" viewBox="0 0 300 214"/);
    expect(svg.match(/<rect/g)).toHaveLength(57);
    await page.open(`/tickets/${row!.id}/prepare`);
    await page.press('prepare-sheet');
    await page.reads('sheet-gives', /56 pieces: 7 × 8/);
    await page.quiet();
  });
});
