import { describe, expect, it } from 'vitest';
import { useApp } from './app.js';

const app = useApp();

describe('the record, looked through', () => {
  it('is searched by words, filtered, given a name, and held side by side', async () => {
    const { page, sql } = app;
    await page.signIn('Ines');
    await page.open('/ledger');
    await page.type('ledger-text', 'corvid faint');
    await page.driver.wait(async () => (await page.driver.getCurrentUrl()).includes('text='), 10_000, 'not searched');
    const [{ count }] = (await sql(
      `SELECT count(*)::int AS count FROM ledger_rows WHERE words @@ to_tsquery('simple', '''corvid'':* & ''faint'':*')`,
    )) as [{ count: number }];
    expect(count).toBeGreaterThan(1);
    await page.says(/faint in one corner/);
    await page.press('name-filter');
    await page.type('filter-name', 'Faint Corvid');
    await page.press('keep-filter');
    await page.reads('named-filter', /Faint Corvid/);
    expect(await sql(`SELECT name, query->>'text' AS words FROM ledger_filters`)).toEqual([
      { name: 'Faint Corvid', words: 'corvid faint' },
    ]);
    await page.open('/ledger');
    await page.press('named-filter');
    await page.at(/text=corvid/);
    await page.says(/faint in one corner/);
    await page.accessible('Ledger');
    const rows = await sql<{ id: string }>(`SELECT id FROM runs ORDER BY at DESC LIMIT 2`);
    await page.open(`/ledger/side-by-side?runs=${rows.map(({ id }) => id).join(',')}`);
    await page.reads('side-by-side-table', /Speed[\s\S]*Faults/);
    await page.accessible('Side by side');
  });

  it('is looked at over time and by its pictures, within the same filters', async () => {
    const { page, sql } = app;
    const [corvid] = await sql<{ id: string }>(
      `SELECT i.id FROM inventory_items i JOIN inventory_revisions r ON r.id = i.revision_id
       WHERE i.kind = 'compound' AND r.body->>'name' = 'Corvid Film'`,
    );
    const [{ runs }] = (await sql(
      `SELECT count(*)::int AS runs FROM runs r WHERE compound_id = '${corvid!.id}'
       AND NOT EXISTS (SELECT 1 FROM runs c WHERE c.corrects_id = r.id)`,
    )) as [{ runs: number }];
    await page.open(`/ledger?compoundId=${corvid!.id}`);
    await page.press('ledger-as-trend');
    await page.reads('ledger-trend', new RegExp(`^${runs} runs by the (week|month)`));
    await page.reads('trend-contrast', /over \d+ runs: chance alone does as much .* in 100/);
    await page.accessible('Ledger over time');
    await page.press('ledger-as-pictures');
    await page.at(/compoundId=.*show=pictures/);
    await page.reads('ledger-pictures', /of the 50 runs shown have pictures[\s\S]*coupon: K-\d+/);
    await page.accessible('Ledger by pictures');
    await page.quiet();
  });

  it('says what works on a substrate, on screen and on paper', async () => {
    const { page, sql, base } = app;
    const [substrate] = await sql<{ id: string }>(
      `SELECT i.id FROM inventory_items i JOIN inventory_revisions r ON r.id = i.revision_id
       WHERE i.kind = 'substrate' AND r.body->>'name' LIKE '304 stainless%'`,
    );
    await page.open(`/stores/${substrate!.id}`);
    await page.press('what-works');
    await page.reads('sheet-settings', /Soothollow[\s\S]*good[\s\S]*Corvid Film/);
    await page.says(/density drifts[\s\S]*extraction pulled the powder off/);
    await page.accessible('What works');
    const paper = await fetch(`${base}/api/substrates/${substrate!.id}/sheet.pdf?at=${encodeURIComponent(base)}`);
    expect(paper.status).toBe(200);
    expect((await paper.arrayBuffer()).byteLength).toBeGreaterThan(20_000);
    await page.quiet();
  });

  it('says what a ticket came to against its plan', async () => {
    const { page, sql } = app;
    const [orchid] = await sql<{ id: string }>(`SELECT id FROM tickets WHERE title = 'Orchid bed tags'`);
    await page.open(`/tickets/${orchid!.id}/judge`);
    await page.press('judge-verdict');
    await page.reads('ticket-cost', /a good piece, planned[\s\S]*Compound[\s\S]*Laser[\s\S]*Comes out good/);
    await page.accessible('Hand over');
  });
});
