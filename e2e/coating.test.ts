import { Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { useApp } from './app.js';

const app = useApp();
const DAY_S = 86_400;

async function ticketOf(title: string): Promise<string> {
  const [row] = await app.sql<{ id: string }>(`SELECT id FROM tickets WHERE title = '${title}'`);
  return row!.id;
}
/** Makes the simulated scale misbehave, as a person would on its own page. */
const scaleIs = (fault: string) => app.deviceIs('scale/fault', fault);
let aheadS = 0;
/** Time goes on by so much: the server is stopped and started again, as over a night. */
async function timePasses(seconds: number): Promise<void> {
  aheadS += seconds;
  await app.stopServer();
  await app.startServer(aheadS);
}
async function valueOf(testId: string): Promise<number> {
  await app.page.driver.wait(
    async () => (await (await app.page.find(testId)).getAttribute('value')) !== '',
    15_000,
    `${testId} stayed empty`,
  );
  return Number(await (await app.page.find(testId)).getAttribute('value'));
}

describe('the beakers, from the plan of their coat to the rotary', () => {
  let beakers = '';

  it('are planned: strokes, what to set out, how the coat is handled', async () => {
    const { page } = app;
    await page.signIn('Tobin');
    beakers = await ticketOf('Rain-gauge beakers');
    await timePasses(8 * 60);
    await page.open(`/tickets/${beakers}/coat`);
    await page.press('gloss-gone');
    await page.gone('drying');
    await page.press('coat-plan');
    await page.reads('coat-takes', /Stir[\s\S]*1 coat by gun from 150–250/);
    await page.reads('coat-takes', /Lampglaze Jar, lot L\d: [\d.]+\sg of \d+\sg/);
    await page.reads('coat-rules', /Lift by bare places only[\s\S]*Keeps 7 days/);
    await page.reads('tile-mass', /[\d.]+\s*g[\s\S]*(Stated|Measured)/);
    await page.accessible('Plan of the coat');
  });

  it('are weighed on the scale, which says when it cannot be read; nothing typed is lost', async () => {
    const { page, sql } = app;
    await page.press('coat-lay');
    await page.choose('container', 'lot L3');
    await page.type('weigh-pieces', '4');
    await scaleIs('unsteady');
    await page.press('scale-before');
    await page.reads('scale-says', /does not settle/);
    await scaleIs('below nought');
    await page.press('scale-before');
    await page.reads('scale-says', /shows -3\.2 g/);
    await scaleIs('unplugged');
    await page.press('scale-before');
    await page.reads('scale-says', /does not answer/);
    expect(await valueOf('weigh-pieces')).toBe(4);
    await scaleIs('none');
    await page.press('scale-before');
    const before = await valueOf('before');
    await page.gone('scale-says');
    // A reload between the two weighings loses nothing: the jar is lighter by then.
    await page.driver.navigate().refresh();
    expect(await valueOf('before')).toBe(before);
    await page.type('weigh-pieces', '4');
    await page.press('scale-after');
    const after = await valueOf('after');
    expect(before - after).toBeGreaterThan(1);
    expect(before - after).toBeLessThan(8);
    await page.type('strokes', '5');
    await page.press('keep-weighing');
    await page.driver.wait(
      async () => (await sql(`SELECT id FROM weighings WHERE ticket_id = '${beakers}' AND strokes = 5`)).length === 1,
      15_000,
      'the weighing was never kept',
    );
    await page.reads('film-verdict', /µm dry[\s\S]*on 4 pieces/);
    const [row] = await sql(
      `SELECT before_g, after_g, strokes, film->>'unit' AS unit, film->>'grade' AS grade FROM weighings WHERE ticket_id = '${beakers}' ORDER BY at DESC LIMIT 1`,
    );
    expect(row).toEqual({ before_g: before, after_g: after, strokes: 5, unit: 'µm', grade: 'measured' });
  });

  it('are read by comb and lamp, and what disagrees is said', async () => {
    const { page, sql } = app;
    await page.press('coat-read');
    await page.type('comb-wet', '180');
    await page.type('comb-dry', '160');
    await page.reads('comb-fault', /higher one/);
    await page.type('comb-dry', '200');
    await page.press('keep-comb');
    await page.reads('coat-contradiction', /Weighing and comb cannot both be right/);
    await page.type('comb-wet', '70');
    await page.type('comb-dry', '80');
    await page.press('keep-comb');
    await page.gone('coat-contradiction');
    await page.choose('looks-lamp', 'a glow');
    await page.press('keep-looks');
    await page.reads('coat-findings', /a lamp shines through/);
    await page.choose('looks-lamp', 'no light');
    await page.press('keep-looks');
    await page.gone('coat-findings');
    await page.accessible('Reading the coat');
    const rows = await sql(
      `SELECT kind, weighing_id IS NOT NULL AS bound FROM coat_readings WHERE ticket_id = '${beakers}' ORDER BY at`,
    );
    expect(rows).toEqual(['comb', 'comb', 'inspection', 'inspection'].map((kind) => ({ kind, bound: true })));
  });

  it('dry by a clock that stands in the title of every page and outlives the server', async () => {
    const { page, sql } = app;
    await page.press('coat-lay');
    await page.press('start-drying');
    await page.reads('drying', /Drying by itself/);
    await page.open('/ledger');
    await page.driver.wait(
      async () => /^[67]:\d\d · Ledger · Unto$/.test(await page.driver.getTitle()),
      10_000,
      'no clock in the title',
    );
    await timePasses(5 * 60);
    await page.open(`/tickets/${beakers}/coat`);
    await page.reads('drying', /Drying by itself/);
    expect(await (await page.find('gloss-gone')).isEnabled()).toBe(false);
    await timePasses(2 * 60);
    await page.open('/today');
    await page.reads('running', /Drying: coat of \d pieces?/);
    await page.driver.wait(
      async () => /^Time is up/.test(await page.driver.getTitle()),
      10_000,
      'the title does not say that time is up',
    );
    await page.accessible('Today with a clock');
    await page.open(`/tickets/${beakers}/coat`);
    await page.press('gloss-gone');
    await page.gone('drying');
    const [clock] = await sql(
      `SELECT outcome, extract(epoch FROM ended_at - started_at)::int AS s FROM timers WHERE ticket_id = '${beakers}' ORDER BY started_at DESC LIMIT 1`,
    );
    expect(clock!.outcome).toBe('passed');
    expect(clock!.s).toBeGreaterThanOrEqual(420);
  });

  it('are placed on the rotary, or lying still in steps of focus', async () => {
    const { page, sql } = app;
    await page.open(`/tickets/${beakers}/place`);
    await page.press('place-focus');
    await page.choose('focus-method', 'twin piece');
    await page.press('keep-set');
    await page.says(/Kept: set, taken/);
    await page.press('place-round');
    await page.reads('degrees', /39\.07\s*°/);
    await page.reads('strips', /below the crown/);
    await page.press('keep-round');
    await page.says(/Kept: round, taken/);
    await page.press('place-checks');
    for (const code of ['focus', 'thickness', 'placed']) await page.press(`check-${code}`);
    await page.reads('station-place', /in focus/);
    const kinds = await sql(`SELECT kind FROM place_readings WHERE ticket_id = '${beakers}' ORDER BY at`);
    expect(kinds).toEqual([{ kind: 'set' }, { kind: 'round' }]);
    await page.quiet(/ERR_|Failed to load resource/);
  });
});

describe('a coated batch', () => {
  it('is stored dry and taken up two days later, looked at, and only then fired', async () => {
    const { page, sql } = app;
    const orchid = await ticketOf('Orchid bed tags');
    await page.open(`/tickets/${orchid}/coat`);
    await page.press('coat-store');
    await page.type('store-pieces', '24');
    await page.press('store-coat');
    await page.says(/Where they lie is missing/);
    await page.type('store-place', 'rack 2, under paper');
    await page.press('store-coat');
    await page.reads('stored', /24 pieces, rack 2, under paper: good until/);
    await page.reads('station-coat', /24 stored/);
    await page.accessible('Stored coats');
    await timePasses(2 * DAY_S);
    await page.open('/today');
    await page.says(/Fire by its date: 24 coated, Orchid bed tags/);
    await page.open(`/tickets/${orchid}/mark`);
    await page.press('way-log');
    await page.type('run-pieces', '6');
    await page.reads('open-stations', /coat: 0 coated pieces are ready, 6 asked; 24 lie stored/i);
    expect(await (await page.find('log-run')).isEnabled()).toBe(false);
    await page.open(`/tickets/${orchid}/coat`);
    await page.press('coat-store');
    await page.press('take-up');
    await page.says(/A coat that took up damp is not fired/);
    await page.press('stored-dry');
    await page.press('stored-untouched');
    await page.press('take-up');
    await page.gone('stored');
    await page.says(/24 pieces, stored .*, taken up .* by Tobin Ash/);
    const [row] = await sql(
      `SELECT outcome, pieces, handling, round(extract(epoch FROM ended_at - stored_at) / ${DAY_S})::int AS days, round(extract(epoch FROM keep_until - stored_at) / ${DAY_S})::int AS keeps FROM stored_coats WHERE ticket_id = '${orchid}'`,
    );
    expect(row).toEqual({ outcome: 'taken up', pieces: 24, handling: 'can be touched', days: 2, keeps: 30 });
    await page.open(`/tickets/${orchid}/mark`);
    await page.press('way-log');
    await page.type('run-pieces', '6');
    await page.choose('air', 'off');
    await page.type('minutes', '9');
    await page.press('log-run');
    await page.driver.wait(
      async () => (await sql(`SELECT 1 FROM runs WHERE ticket_id = '${orchid}' AND minutes = 9`)).length === 1,
      10_000,
      'the run was not kept',
    );
    await page.at(/\/clean$/);
    await page.press('station-coat');
    await page.press('coat-trend');
    await page.reads('trend-person', /µm on average of \d+/);
    await page.accessible('Trend');
  });
});

describe('the picture of a dry coat', () => {
  const sees = async (scene: string) =>
    fetch(`${app.devices}/camera/scene`, {
      method: 'POST',
      body: new URLSearchParams({ choice: scene }),
      redirect: 'manual',
    });

  it('names what is wrong and what it costs, moves with its marks, and is accepted or rinsed off', async () => {
    const { page, sql } = app;
    const orchid = await ticketOf('Orchid bed tags');
    await page.open(`/tickets/${orchid}/coat`);
    await page.press('coat-picture');
    await page.bring('picture-file', 'sheet.jpg', '%PDF-1.7 not a picture');
    await page.reads('picture-fault', /That is a PDF inside/);
    await page.bring('picture-file', 'cut.jpg', Uint8Array.from([0xff, 0xd8, 0xff, 0xe0, 0, 16, 74, 70]));
    await page.reads('picture-fault', /cut short or damaged/);
    await page.bring('picture-file', 'phone.heic', 'ftypheic');
    await page.reads('picture-fault', /no PDF, PNG, JPEG, SVG, DXF or G-code inside/);
    await sees('touched');
    await page.press('take-picture');
    await page.reads('picture-places', /Touched, \d+ × \d+\smm at/);
    await page.reads('picture-verdict', /% of the artwork (would come out pale|might wash off)/);
    await page.accessible('Picture');
    // The bare mark on the coat itself is no bare ground: it is said, and comes back with the keys.
    const bare = await page.find('handle-bare');
    for (let k = 0; k < 24; k += 1) await bare.sendKeys(Key.chord(Key.SHIFT, Key.ARROW_LEFT));
    await page.reads('picture-fault', /look alike/);
    for (let k = 0; k < 24; k += 1) await bare.sendKeys(Key.chord(Key.SHIFT, Key.ARROW_RIGHT));
    await page.reads('picture-places', /Touched/);
    await page.press('picture-rinse');
    await page.says(/Rinsed off before firing: only compound was lost/);
    await sees('even');
    await page.press('take-picture');
    await page.reads('picture-verdict', /Good to fire/);
    await page.press('picture-accept');
    await page.reads('picture-history', /accepted[\s\S]*rinsed off, [1-9]/);
    const rows = await sql(
      `SELECT decision, judgement->>'advice' AS advice, jsonb_array_length(entries->'map'->'film') = (entries->'map'->>'columns')::int * (entries->'map'->>'rows')::int AS whole, EXISTS (SELECT 1 FROM stored_files f WHERE f.hash = entries->>'fileHash') AS kept FROM coat_pictures WHERE ticket_id = '${orchid}' ORDER BY at`,
    );
    expect(rows.map(({ decision }) => decision)).toEqual(['rinsed off', 'accepted']);
    expect(rows.map(({ advice }) => advice)[1]).toBe('accept');
    expect(rows.every(({ whole, kept }) => whole && kept)).toBe(true);
  });
});

describe('two heads in turn', () => {
  it('cut with one, swap step by step, and everything that hangs on the head is asked again', async () => {
    const { page, sql } = app;
    await page.open('/tickets/new');
    await page.type('title', 'Gate sign');
    await page.type('pieces', '1');
    await page.choose('substrate', 'Black anodised');
    await page.type('width', '60');
    await page.type('height', '40');
    await page.choose('head', 'Small bench infrared');
    await page.choose('lens', 'Infrared fixed');
    await page.press('keep');
    const ticket = /tickets\/([0-9a-f-]{36})/.exec(await page.at(/\/choose$/))![1]!;
    await page.open(`/tickets/${ticket}/place`);
    for (const code of ['focus', 'thickness', 'placed']) await page.press(`check-${code}`);
    await page.reads('station-place', /in focus/);
    await page.press('place-head');
    await page.choose('fit-head', 'Small bench blue');
    await page.choose('fit-work', 'cutting');
    for (const step of ['power-down', 'plug', 'seat', 'eyewear', 'refocus']) await page.press(`step-${step}`);
    await page.press('fit');
    await page.reads(
      'fitted',
      /Small bench blue with Blue fixed lens is fitted, for cutting[\s\S]*change it before anything is fired/,
    );
    await page.reads('station-place', /head to change/);
    await page.accessible('Head');
    for (const step of ['power-down', 'plug', 'seat', 'eyewear', 'refocus']) await page.press(`step-${step}`);
    await page.press('fit');
    await page.reads('fitted', /Small bench infrared with Infrared fixed lens is fitted, for marking/);
    await page.reads('station-place', /0 of 3 checked/);
    await page.press('place-align');
    const cells = [
      ['0-foundX', 20],
      ['0-foundY', 15],
      ['1-foundX', 79.8],
      ['1-foundY', 55.3],
    ] as const;
    for (const [id, mm] of cells) await page.type(`align-${id}`, String(mm));
    await page.reads('align-turn', /0\.2\d+\s*°/);
    await page.press('keep-align');
    await page.says(/Kept: align, taken/);
    await page.accessible('Align');
    expect(await sql(`SELECT work FROM fittings WHERE ticket_id = '${ticket}' ORDER BY at`)).toEqual([
      { work: 'cut' },
      { work: 'mark' },
    ]);
    const [aligned] = await sql(
      `SELECT (result->'turn'->>'value')::float AS turn FROM place_readings WHERE ticket_id = '${ticket}' AND kind = 'align'`,
    );
    // atan2(40.3, 59.8) − atan2(40, 60) = 0.283°
    expect(aligned!.turn).toBeCloseTo(0.283, 2);
  });
});

describe('mixed sizes on one sheet', () => {
  it('are nested by the worker and kept with the ticket', async () => {
    const { page, sql } = app;
    const markers = await ticketOf('Arboretum trail markers');
    await page.open(`/tickets/${markers}/prepare`);
    await page.press('prepare-sheet');
    await page.choose('sheet-mode', 'Mixed sizes');
    await page.type('sheet-width', '600');
    await page.type('sheet-height', '400');
    for (const [i, [w, h, count, test]] of [
      [90, 60, 20, 2],
      [45, 30, 30, 0],
      [120, 25, 8, 0],
    ].entries()) {
      await page.press('size-add');
      for (const [key, value] of Object.entries({ widthMm: w, heightMm: h, count, test }))
        await page.type(`size-${i}-${key}`, String(value));
    }
    await page.press('nest');
    await page.reads('sheet-gives', /58 pieces: 4 sizes, 2 of them for testing, all placed/);
    await page.accessible('Nesting');
    await page.press('keep-sheet');
    await page.says(/Kept with the ticket/);
    const [row] = await sql(
      `SELECT places, left_out, entries->>'mode' AS mode FROM sheets WHERE ticket_id = '${markers}'`,
    );
    expect(row).toEqual({ places: 58, left_out: 0, mode: 'mixed' });
    await page.press('sheet-dxf');
    const [{ number }] = (await sql(`SELECT number FROM tickets WHERE id = '${markers}'`)) as [{ number: number }];
    expect((await page.downloaded(`sheet-${number}.dxf`)).match(/\r\nTEST\r\n/g)!.length).toBe(2 * 6);
  });
});
