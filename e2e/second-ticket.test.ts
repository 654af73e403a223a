import { describe, expect, it } from 'vitest';
import { useApp } from './app.js';

const app = useApp();

describe('a second ticket from scratch, without a compound', () => {
  let ticket = '';

  it('takes a new substrate into the stores and a ticket on it', async () => {
    const { page, sql } = app;
    await page.signIn('Ines');
    await page.open('/stores');
    await page.press('add-substrate');
    await page.type('shelf-name', 'Red anodised tags');
    await page.choose('shelf-family', 'aluminium');
    await page.choose('shelf-layer', 'anodised');
    await page.choose('shelf-ground', 'light');
    await page.type('shelf-finish', 'red satin');
    await page.type('shelf-thicknessMm', '1,5');
    await page.type('shelf-conductivity', '0.172');
    await page.type('shelf-diffusivity', '71');
    await page.type('shelf-thermalSource', 'handbook');
    await page.press('keep-item');
    await page.find('revise');
    const [row] = await sql(
      `SELECT r.body->>'layer' AS layer, (r.body->>'thicknessMm')::float AS mm FROM inventory_revisions r WHERE r.body->>'name' = 'Red anodised tags'`,
    );
    expect(row).toEqual({ layer: 'anodised', mm: 1.5 });
    await page.accessible('Stores');
    await page.open('/tickets/new');
    await page.type('title', 'Valve tags');
    await page.type('pieces', '3');
    await page.choose('substrate', 'Red anodised tags');
    await page.type('width', '20');
    await page.type('height', '8');
    await page.choose('head', 'Small bench blue');
    await page.choose('tone', 'light on dark');
    await page.press('keep');
    ticket = /tickets\/([0-9a-f-]{36})/.exec(await page.at(/\/choose$/))![1]!;
    expect(
      await sql(
        `SELECT aim->>'tone' AS tone, l.body->>'name' AS lens FROM tickets t JOIN inventory_items s ON s.id = t.lens_id JOIN inventory_revisions l ON l.id = s.revision_id WHERE t.id = '${ticket}'`,
      ),
    ).toEqual([{ tone: 'light on dark', lens: 'Blue fixed lens' }]);
  });

  it('is told why every compound is withheld, and marks without one', async () => {
    const { page, sql } = app;
    await page.press('withheld-why');
    await page.reads('withheld-Corvid Film', /The part is anodised/);
    await page.reads('verdict', /^Burn off the layer, because nothing else is offered/);
    await page.pick('option-Burn off the layer');
    await page.press('take');
    await page.at(/\/prepare$/);
    await page.reads('station-coat', /none needed/);
    expect(await sql(`SELECT compound_id, choice_reason FROM tickets WHERE id = '${ticket}'`)).toEqual([
      { compound_id: null, choice_reason: 'Taken: Burn off the layer.' },
    ]);
  });

  it('sees the eyewear caution of this head, acknowledged once', async () => {
    const { page, sql } = app;
    await page.press('station-place');
    await page.reads('caution', /Small bench blue fitted[\s\S]*orange pair marked 455 nm/);
    await page.press('understood');
    await page.driver.wait(
      async () =>
        (await sql(`SELECT 1 FROM checks WHERE ticket_id = '${ticket}' AND kind = 'caution' AND code = 'eyewear-blue'`))
          .length === 1,
      5000,
      'the caution was not kept',
    );
  });

  it('logs a run as a guess in the panel’s own units, and brings coupon outcomes from CSV', async () => {
    const { page, sql } = app;
    await page.press('station-mark');
    await page.says(/this setting rests on nothing yet/);
    await page.press('way-log');
    await page.type('power', '900');
    await page.type('speed', '6000');
    await page.type('interval', '0.07');
    await page.choose('air', 'off');
    await page.type('minutes', '4');
    await page.type('run-reason', 'one piece to try the head');
    await page.press('log-run');
    await page.at(/\/clean$/);
    const [run] = await sql(
      `SELECT entered->'power' AS power, power_percent, speed_mm_per_s, grade FROM runs WHERE ticket_id = '${ticket}'`,
    );
    expect(run).toEqual({
      power: { unit: '0-1000', value: 900 },
      power_percent: 90,
      speed_mm_per_s: 100,
      grade: 'guess',
    });
    await page.open(`/tickets/${ticket}/prove`);
    await page.press('design-coupon');
    await page.type('x-count', '2');
    await page.type('y-count', '2');
    await page.press('third');
    await page.reads('cell-count', /^8$/);
    await page.press('keep-coupon');
    const coupon = (await page.at(/\/coupons\/[0-9a-f-]{36}$/)).split('/').at(-1)!;
    await page.fires();
    await page.press('burnt');
    await page.find('brush-holds');
    await page.bring(
      'import-csv',
      'cells.csv',
      'cell,rinsed,scrubbed,note\r\n1,holds,too much,"two\r\nlines"\r\n2,holds,holds,\r\n8,too little,too little,\r\n',
    );
    await page.driver.wait(
      async () =>
        (await sql(`SELECT 1 FROM readings WHERE coupon_id = '${coupon}' AND stage = 'scrubbed' AND source = 'csv'`))
          .length === 1,
      10_000,
      'the outcomes were not kept',
    );
    const [reading] = await sql(`SELECT entries FROM readings WHERE coupon_id = '${coupon}' AND stage = 'scrubbed'`);
    expect(reading!.entries).toEqual([
      { cell: 0, outcome: 'over' },
      { cell: 1, outcome: 'holds' },
      { cell: 7, outcome: 'under' },
    ]);
    await page.quiet();
  });

  it('keeps a stated setting in the units it came in', async () => {
    const { page, sql } = app;
    await page.open('/practice');
    await page.press('add-stated');
    await page.type('stated-title', 'Glass, 10 W fibre');
    await page.type('stated-rated', '10');
    await page.type('stated-top', '508');
    await page.type('stated-power', '70');
    await page.type('stated-speed', '50');
    await page.choose('stated-speed-unit', '%');
    await page.type('stated-interval', '0.001');
    await page.choose('stated-interval-unit', 'in');
    await page.type('stated-source', 'a label');
    await page.press('keep-stated');
    await page.reads(
      'stated-row',
      /Glass, 10 W fibre[\s\S]*0\.001\sin[\s\S]*1\.08 J\/mm²[\s\S]*Stated|Glass, 10 W fibre[\s\S]*1\.09 J\/mm²/,
    );
    const [row] = await sql(
      `SELECT body->'interval' AS interval, (computed->>'doseJPerMm2')::float AS dose FROM stated_settings WHERE body->>'title' = 'Glass, 10 W fibre'`,
    );
    expect(row!.interval).toEqual({ unit: 'in', value: 0.001 });
    expect(row!.dose).toBeCloseTo(1.085, 3);
    await page.accessible('Practice');
  });

  it('reads in the units that the shop chooses, and is kept as before', async () => {
    const { page, sql } = app;
    await page.open('/shop');
    await page.choose('shop-lengthUnit', 'in');
    await page.choose('shop-massUnit', 'oz');
    await page.reads('shop-sample', /2\.362 × 0\.984\sin[\s\S]*oz sprayed/);
    await page.accessible('Shop');
    await page.press('keep-shop');
    await page.reads('notice', /Kept\. Everything reads by it/);
    const [shop] = await sql(`SELECT body->>'lengthUnit' AS length, body->>'massUnit' AS mass, version FROM workshop`);
    expect(shop).toMatchObject({ length: 'in', mass: 'oz' });
    await page.open(`/tickets/${ticket}/mark`);
    await page.says(/0\.787 × 0\.315\sin to mark/);
    await page.open('/tickets/new');
    await page.type('title', 'Typed in inches');
    await page.type('width', '2');
    // A unit behind the number is taken at its word, and the field stays in it.
    await page.type('height', '12 mm');
    await page.type('pieces', '1');
    await page.reads('height-unit', /mm/);
    await page.choose('substrate', 'Red anodised tags');
    await page.choose('head', 'Small bench blue');
    await page.press('keep');
    await page.at(/\/choose$/);
    expect(
      await sql(`SELECT mark_width_mm AS width, mark_height_mm AS height FROM tickets WHERE title = 'Typed in inches'`),
    ).toEqual([{ width: 50.8, height: 12 }]);
  });
});
