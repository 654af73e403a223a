import { describe, expect, it } from 'vitest';
import { useApp } from './app.js';

const app = useApp({ demo: false });

/** Presses and entries of each part of the way. */
const counts: Record<string, { presses: number; entries: number }> = {};

describe('from an empty workshop to a proved setting', () => {
  it('begins with kinds, and the two or three things on a label', async () => {
    const { page, sql } = app;
    await page.open('/');
    await page.at(/\/begin$/);
    await page.accessible('Begin, empty');
    await page.type('begin-person', 'Wanda');
    await page.choose('begin-head', 'CO2 panel machine, 50–60 W');
    await page.choose('begin-compound', 'Metal, film-forming, aerosol');
    await page.type('begin-compound-name', 'Corvid Film');
    await page.choose('begin-material', '304 stainless');
    await page.choose('begin-layer', 'bare');
    await page.type('begin-thickness', '1.2');
    await page.type('begin-blank-width', '70');
    await page.type('begin-blank-height', '60');
    await page.accessible('Begin');
    await page.press('begin-keep');
    await page.at(/\/tickets\/new$/);
    counts['begin'] = page.counted();
    const items = await sql<{ kind: string; of: string; usual: number }>(
      `SELECT i.kind, r.body->>'ofKind' AS of, jsonb_array_length(r.body->'usual') AS usual
       FROM inventory_items i JOIN inventory_revisions r ON r.id = i.revision_id ORDER BY i.kind`,
    );
    expect(items.map(({ kind, of }) => `${kind} ${of}`)).toEqual([
      'blank piece',
      'compound film-aerosol',
      'container can-large',
      'head co2-55',
      'lens co2-55/50.8',
      'machine co2-55',
      'substrate 304',
    ]);
    expect(items.every(({ usual }) => usual > 0)).toBe(true);
  });

  it('opens a ticket, for which what there is only one of is chosen', async () => {
    const { page } = app;
    await page.type('title', 'Bed tags');
    await page.type('width', '38');
    await page.type('height', '22');
    await page.press('keep');
    await page.at(/\/choose$/);
    await page.press('take');
    await page.at(/\/prepare$/);
    counts['ticket'] = page.counted();
  });

  it('prepares, and coats by the scale and the clock', async () => {
    const { page, sql } = app;
    for (const code of ['bare', 'measured', 'flat', 'clean']) await page.press(`check-${code}`);
    await page.reads('station-prepare', /bare, clean, dry/);
    await page.press('station-coat');
    await page.reads('tile-dry', /Usual/);
    await page.press('scale-before');
    await page.filled('before');
    await page.press('scale-after');
    await page.filled('after');
    await page.press('keep-weighing');
    await page.reads('film-verdict', /Usual/);
    await page.press('start-drying');
    await page.find('drying');
    await sql(`UPDATE timers SET started_at = started_at - interval '1 hour'`);
    await page.driver.navigate().refresh();
    await page.press('gloss-gone');
    await page.gone('drying');
    counts['prepare and coat'] = page.counted();
  });

  it('places', async () => {
    const { page } = app;
    await page.press('station-place');
    for (const code of ['focus', 'thickness', 'placed']) await page.press(`check-${code}`);
    counts['place'] = page.counted();
  });

  it('designs a coupon from what is usual, on the blank of the shelf', async () => {
    const { page } = app;
    await page.press('station-prove');
    await page.press('design-coupon');
    await page.reads('starting-note', /usual for metal film-forming on stainless[\s\S]*Usual/);
    await page.accessible('Coupon designer');
    await page.press('keep-coupon');
    await page.at(/\/coupons\/[0-9a-f-]{36}$/);
    counts['coupon'] = page.counted();
  });

  it('burns it, reads it from pictures before and after the scrub, and takes the setting that is proved', async () => {
    const { page, sql } = app;
    await app.deviceIs('controller/pace', '400');
    await page.fires();
    await page.press('send-burn');
    await page.find('stage-rinsed');
    await page.press('take-picture');
    await page.reads('reading-about', /card A5 found/);
    await page.press('keep-readings');
    await page.says(/readings kept with their picture/);
    await page.press('take-picture');
    await page.find('kept-map');
    await page.press('keep-readings');
    await page.at(/\/windows\//);
    await page.reads('offer-quickest', /Proved/);
    await page.press('make-recipe');
    await page.at(/\/mark$/);
    counts['prove'] = page.counted();
    const [recipe] = await sql(`SELECT grade FROM recipes`);
    expect(recipe).toEqual({ grade: 'proved' });
    await page.quiet();
    // Required to the first coupon: seven of Begin and three of the ticket; the blank's two sides may be left out.
    const sum = (parts: readonly string[], of: 'presses' | 'entries') =>
      parts.reduce((total, part) => total + counts[part]![of], 0);
    console.log(`from an empty workshop to a proved setting: ${JSON.stringify(counts)}`);
    expect(sum(['begin', 'ticket', 'prepare and coat', 'place', 'coupon'], 'entries')).toBeLessThanOrEqual(14);
    expect(sum(Object.keys(counts), 'presses')).toBeLessThanOrEqual(40);
    expect(sum(Object.keys(counts), 'entries')).toBeLessThanOrEqual(25);
  });
});
