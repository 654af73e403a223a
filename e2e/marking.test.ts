import { randomUUID } from 'node:crypto';
import type { Driver as ChromeDriver } from 'selenium-webdriver/chrome.js';
import { describe, expect, it } from 'vitest';
import { useApp } from './app.js';

const app = useApp();

const network = (offline: boolean) =>
  (app.page.driver as unknown as ChromeDriver).setNetworkConditions({
    ...{ offline, latency: 0, download_throughput: 10_000_000, upload_throughput: 10_000_000 },
  });
const ticketOf = async (title: string) =>
  (await app.sql<{ id: string }>(`SELECT id FROM tickets WHERE title = '${title}'`))[0]!.id;
const counted = async (marking: string) =>
  (await app.sql<{ piece: number }>(`SELECT DISTINCT piece FROM piece_events WHERE marking_id = '${marking}'`)).length;

/** Somebody else counts a piece at their own screen. */
async function otherCounts(marking: string, piece: number): Promise<void> {
  const [tobin] = await app.sql<{ id: string }>(`SELECT id FROM operators WHERE name LIKE 'Tobin%'`);
  const response = await fetch(`${app.base}/api/markings/${marking}/pieces`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'x-unto-operator': tobin!.id },
    body: JSON.stringify({ id: randomUUID(), piece, what: 'done', why: null }),
  });
  expect(response.status).toBe(200);
}

describe('orchid tags under the beam', () => {
  it('are counted by two people, one spoilt, the connection lost once, and become a run with its own minutes', async () => {
    const { page, sql } = app;
    await page.signIn('Ines');
    const orchid = await ticketOf('Orchid bed tags');
    await page.open(`/tickets/${orchid}/mark`);
    await page.type('run-pieces', '8');
    await page.press('check-focus');
    await page.press('check-air');
    await page.press('check-extraction');
    await page.press('begin-run');
    await page.reads('now-piece', /Piece 1/);
    const [marking] = await sql<{ id: string; checked: string[] }>(
      `SELECT id, entered->'checked' AS checked FROM markings WHERE ticket_id = '${orchid}' AND ended_at IS NULL`,
    );
    expect(marking!.checked).toEqual(['focus', 'air', 'extraction']);
    await page.press('piece-done');
    // The first is scrubbed before the second is spent.
    await page.reads('first-piece', /rinse and scrub piece 1/);
    await page.press('first-held');
    await page.press('piece-done');
    await page.reads('now-piece', /Piece 3/);
    await page.press('piece-wrong');
    await page.press('piece-3');
    await page.press('spoilt-moved in the jig');
    await page.reads('counted', /2 done · 1 set aside · 5 to go/);
    await page.accessible('Counting a run');
    // Tobin counts the fourth at his own screen; it shows here without a press.
    await otherCounts(marking!.id, 4);
    await page.reads('now-piece', /Piece 5/);
    await network(true);
    await page.keys('d');
    await page.reads('count-waits', /1 waiting to be sent/);
    await page.keys('d');
    await page.reads('now-piece', /Piece 7/);
    expect(await counted(marking!.id)).toBe(4);
    await network(false);
    await page.driver.wait(async () => (await counted(marking!.id)) === 6, 20_000, 'what waited was not sent');
    // Both mean the seventh: it is counted once.
    await otherCounts(marking!.id, 7);
    await page.reads('now-piece', /Piece 8/);
    await page.keys('d');
    await page.says(/All 8 are marked/);
    await page.press('end-marking');
    await page.at(/\/clean$/);
    const [run] = await sql(
      `SELECT r.pieces, r.minutes_from, r.grade, r.air, r.minutes * 60 BETWEEN 1 AND 600 AS timed FROM runs r
       JOIN markings m ON m.run_id = r.id WHERE m.id = '${marking!.id}'`,
    );
    expect(run).toEqual({ pieces: 8, minutes_from: 'counted', grade: 'proved', air: 'off', timed: true });
    const spoilt = await sql(
      `SELECT piece, why, spot IS NOT NULL AS placed FROM piece_events WHERE what = 'set aside'`,
    );
    expect(spoilt).toEqual([{ piece: 3, why: 'moved in the jig', placed: true }]);
  });
});
