import { beforeAll, describe, expect, it } from 'vitest';
import { useApp } from './app.js';

const app = useApp();
let orchid = '';
let beakers = '';
beforeAll(async () => {
  const tickets = await app.sql<{ id: string; title: string }>('SELECT id, title FROM tickets');
  orchid = tickets.find(({ title }) => title === 'Orchid bed tags')!.id;
  beakers = tickets.find(({ title }) => title === 'Rain-gauge beakers')!.id;
});

describe('bad input', () => {
  it('is refused at the field before anything is kept: power, speed, interval', async () => {
    const { page, sql } = app;
    await page.signIn('Tobin');
    await page.open(`/tickets/${orchid}/mark`);
    const before = await sql(`SELECT count(*) FROM runs WHERE ticket_id = '${orchid}'`);
    for (const [field, value, message] of [
      ['power', '0', /Power must be above 0/],
      ['power', '101', /Power must be at most 100/],
      ['speed', '140', /at most|between 0 and 100/],
      ['interval', '0', /Interval must be above 0/],
    ] as const) {
      await page.open(`/tickets/${orchid}/mark`);
      await page.press('way-log');
      await page.type(field, value);
      await page.press('log-run');
      await page.says(message);
    }
    expect(await sql(`SELECT count(*) FROM runs WHERE ticket_id = '${orchid}'`)).toEqual(before);
  });

  it('a coupon that fits neither blank nor bed; 1 × 1 and 40 × 40 that do', async () => {
    const { page } = app;
    await page.open(`/tickets/${orchid}/prove`);
    await page.designs();
    await page.type('blank-width', '30');
    await page.reads('design-fault', /The coupon needs [\d.]+ × [\d.]+ mm; the blank is 30 × 60 mm/);
    expect(await (await page.find('keep-coupon')).isEnabled()).toBe(false);
    await page.type('blank-width', '900');
    await page.reads('design-fault', /larger than the bed, 700 × 500 mm/);
    await page.type('blank-width', '120');
    await page.type('blank-height', '130');
    for (const axis of ['x', 'y']) await page.type(`${axis}-count`, '40');
    await page.choose('labels', 'rows and columns');
    await page.type('cell-width', '2');
    await page.type('cell-height', '2');
    await page.type('gap', '0.5');
    await page.reads('cell-count', /^1600$/);
    await page.type('x-count', '1');
    await page.type('y-count', '1');
    await page.reads('cell-count', /^1$/);
    await page.type('y-to', '99999 mm/s');
    await page.type('y-count', '3');
    await page.reads('design-fault', /faster than this head runs, 600 mm\/s/);
  });

  it('tables with a missing column, a wrong unit, a formula, Latin-1 bytes, 20 MB', async () => {
    const { page, sql } = app;
    const [coupon] = await sql(`SELECT id FROM coupons WHERE ticket_id = '${beakers}'`);
    await page.open(`/coupons/${coupon!.id}`);
    await page.find('coupon-grid');
    const before = await sql('SELECT count(*) FROM readings');
    for (const [content, message] of [
      ['cell,outcome\n1,holds\n', /lacks both outcome columns/],
      ['cell,speed [furlongs],scrubbed\n1,5,holds\n', /Line 1: column “speed \[furlongs\]”/],
      ['cell,scrubbed\n1,"=1+1"\n', /Line 2, column “scrubbed” holds a formula/],
      [
        new Uint8Array([...Buffer.from('cell,scrubbed\n1,h'), 0xf6, 0x0a]),
        /Line 2 holds a character that is not UTF-8/,
      ],
      [new Uint8Array(20_000_000).fill(97), /holds 20.0 MB; at most 5 MB/],
    ] as const) {
      await page.bring('import-csv', 'bad.csv', content);
      await page.reads('coupon-fault', message);
    }
    expect(await sql('SELECT count(*) FROM readings')).toEqual(before);
    await page.open('/ledger');
    await page.find('ledger-row');
    await page.bring('ledger-import', 'bad.csv', 'id,at\n1,2\n');
    await page.reads('import-problems', /Nothing was imported[\s\S]*lacks the columns/);
  });
});

describe('two people and a broken connection', () => {
  it('offers both versions when two change one ticket', async () => {
    const { page, sql } = app;
    const [markers] = await sql(`SELECT id FROM tickets WHERE title = 'Arboretum trail markers'`);
    await page.open(`/tickets/${markers!.id}/choose`);
    await page.find('option-Ternwhite Concentrate');
    await sql(
      `UPDATE tickets SET version = version + 1, note = 'changed by somebody else' WHERE id = '${markers!.id}'`,
    );
    await page.pick('option-Lampglaze Jar');
    await page.type('reason', 'mine');
    await page.press('take');
    await page.reads(
      'conflict',
      /Somebody else changed this ticket[\s\S]*Lampglaze Jar[\s\S]*changed by somebody else/,
    );
    await page.press('keep-mine');
    await page.gone('conflict');
    await page.driver.wait(
      async () =>
        (
          await sql(
            `SELECT 1 FROM tickets WHERE id = '${markers!.id}' AND choice_reason = 'mine' AND note = 'changed by somebody else' AND compound_id IS NOT NULL`,
          )
        ).length === 1,
      10_000,
      'the second version was not kept over the first',
    );
  });

  it('keeps what is entered while the server is away, across a reload, and sends it in order when it is back', async () => {
    const { page, sql, stopServer, startServer } = app;
    await page.open(`/tickets/${orchid}/coat`);
    await page.choose('container', 'lot K7');
    await page.type('before', '280');
    await page.type('after', '270');
    await page.type('weigh-pieces', '12');
    const [{ count }] = (await sql(`SELECT count(*)::int AS count FROM weighings WHERE ticket_id = '${orchid}'`)) as [
      { count: number },
    ];
    await stopServer();
    await page.press('keep-weighing');
    await page.reads('outbox', /1 entry waiting to be sent[\s\S]*a weighing/);
    await page.press('start-drying');
    await page.reads('outbox', /2 entries waiting to be sent[\s\S]*a weighing, the drying timer/);
    await startServer();
    await page.driver.navigate().refresh();
    await page.driver.wait(
      async () =>
        (
          (await sql(`SELECT count(*)::int AS count FROM weighings WHERE ticket_id = '${orchid}'`)) as [
            { count: number },
          ]
        )[0].count ===
        count + 1,
      20_000,
      'the weighing was never sent',
    );
    await page.gone('outbox');
    expect(
      await sql(
        `SELECT before_g, after_g, pieces FROM weighings WHERE ticket_id = '${orchid}' ORDER BY at DESC LIMIT 1`,
      ),
    ).toEqual([{ before_g: 280, after_g: 270, pieces: 12 }]);
    expect(await sql(`SELECT kind FROM timers WHERE ticket_id = '${orchid}' AND ended_at IS NULL`)).toEqual([
      { kind: 'dry' },
    ]);
  });

  it('says at the field what is missing on a new ticket, and keeps the draft over a reload', async () => {
    const { page, sql } = app;
    const before = await sql('SELECT count(*) FROM tickets');
    await page.open('/tickets/new');
    await page.type('title', 'Half a ticket');
    await page.type('width', '-4');
    await page.press('keep');
    await page.says(/Width of the mark must be above 0/);
    await page.says(/Choose what the part is made of/);
    expect(await sql('SELECT count(*) FROM tickets')).toEqual(before);
    await page.driver.navigate().refresh();
    expect(await (await page.find('title')).getAttribute('value')).toBe('Half a ticket');
  });
});
