import { axisValues, type CouponDesign } from '@unto/core';
import { describe, expect, it } from 'vitest';
import { useApp } from './app.js';

const app = useApp();

describe('a pulsed fibre coupon over frequency, read by eye', () => {
  let ticket = '';
  let coupon = '';

  it('is opened like the job before, with its head', async () => {
    const { page, sql } = app;
    await page.signIn('Ines');
    const [row] = await sql<{ id: string }>(`SELECT id FROM tickets WHERE title = 'Eyepiece drawer labels'`);
    await page.open(`/tickets/${row!.id}/prove`);
    await page.press('ticket-menu');
    await page.press('duplicate-ticket');
    await page.at(/\/tickets\/new\?like=/);
    await page.reads('title', /^$/);
    await page.type('title', 'Ocular rings');
    await page.type('pieces', '6');
    await page.press('keep');
    ticket = (await page.at(/\/tickets\/[0-9a-f-]{36}\/choose$/)).split('/').at(-2)!;
  });

  it('is designed over frequency in blocks, crossed, and burnt by hand with air and extraction noted', async () => {
    const { page, sql } = app;
    await page.open(`/tickets/${ticket}/prove`);
    await page.press('design-coupon');
    await page.press('third');
    await page.choose('block-parameter', 'frequency');
    await page.choose('block-spacing', 'a list');
    await page.type('block-list', '30, 60, 90');
    await page.type('fixed-pulse', '100');
    await page.press('crossed');
    await page.type('x-count', '5');
    await page.type('y-count', '5');
    await page.type('blank-width', '110');
    await page.type('blank-height', '80');
    await page.reads('cell-count', /^75$/);
    await page.press('keep-coupon');
    coupon = (await page.at(/\/coupons\/[0-9a-f-]{36}$/)).split('/').at(-1)!;
    await page.press('burnt');
    await page.says(/Say how air assist and extraction stand while it fires/);
    await page.fires();
    await page.press('burnt');
    await page.find('stage-scrubbed');
    const [made] = await sql<{ firing: { air: string; powerMode: string; cellW: (number | null)[] } }>(
      `SELECT firing FROM coupons WHERE id = '${coupon}'`,
    );
    expect(made!.firing).toMatchObject({ air: 'off', extraction: 'on', powerMode: 'constant' });
    expect(made!.firing.cellW).toHaveLength(75);
  });

  it('is read by eye from a table: best at 60 kHz', async () => {
    const { page, sql } = app;
    const [row] = await sql<{ design: CouponDesign }>(`SELECT design FROM coupons WHERE id = '${coupon}'`);
    const { x, y, block } = row!.design.axes;
    const [powers, speeds, frequencies] = [axisValues(x), axisValues(y), axisValues(block!)];
    const middle = Math.log(powers[2]!) - 0.6 * Math.log(speeds[2]!);
    const lines = frequencies.flatMap((frequency, b) =>
      speeds.flatMap((speed, r) =>
        powers.map((power, c) => {
          const effect = Math.log(power) - 0.6 * Math.log(speed) - middle - 1.2 * Math.log(frequency / 60) ** 2;
          const outcome = effect < -0.35 ? 'too little' : effect < 0.75 ? 'holds' : 'too much';
          return `${b * powers.length * speeds.length + r * powers.length + c + 1},${outcome}`;
        }),
      ),
    );
    await page.bring('import-csv', 'cells.csv', ['cell,scrubbed', ...lines].join('\r\n'));
    await page.driver.wait(
      async () => (await sql(`SELECT 1 FROM readings WHERE coupon_id = '${coupon}'`)).length === 1,
      10_000,
      'the outcomes were not kept',
    );
  });

  it('gives a recipe with its frequency, proved by eye', async () => {
    const { page, sql } = app;
    await page.open(`/tickets/${ticket}/prove`);
    await page.press('to-window');
    await page.choose('window-family', 'crossed');
    await page.reads('offer-quickest', /Proved by eye[\s\S]*crossed[\s\S]*kHz, 100\sns/);
    await page.says(/Not from pictures alone: 75 of 75 cells were judged by eye/);
    await page.accessible('Window of a family');
    await page.press('make-recipe');
    await page.at(/\/mark$/);
    const [recipe] = await sql(
      `SELECT grade, hatches, frequency_k_hz, pulse_ns, air, extraction, power_mode, focus_offset_mm FROM recipes WHERE ticket_id = '${ticket}'`,
    );
    expect(recipe).toMatchObject({ grade: 'proved by eye', hatches: 2, pulse_ns: 100, air: 'off', extraction: 'on' });
    expect([30, 60, 90]).toContain(recipe!.frequency_k_hz);
  });

  it('is run with it under a reason, and the ledger keeps the whole setting', async () => {
    const { page, sql } = app;
    await page.press('way-log');
    await page.choose('air', 'off');
    await page.choose('extraction', 'on');
    await page.type('minutes', '3');
    await page.press('log-run');
    await page.says(/Say why it runs all the same/);
    await page.type('run-reason', 'rings checked by hand');
    await page.press('log-run');
    await page.at(/\/clean$/);
    const [run] = await sql(
      `SELECT id, grade, because, frequency_k_hz, pulse_ns, hatches, reason, bench -> 'blank' ->> 'name' AS blank FROM runs WHERE ticket_id = '${ticket}'`,
    );
    expect(run).toMatchObject({ grade: 'carried', pulse_ns: 100, hatches: 2, reason: 'rings checked by hand' });
    await page.open(`/ledger/${run!.id}`);
    await page.reads('run-because', /judged by eye[\s\S]*prepare: 0 of \d checked/);
    await page.says(/crossed, \d+ kHz, 100 ns, at focus, air off/);
    const csv = await (await fetch(`${app.base}/api/ledger.csv?ticketId=${ticket}`)).text();
    expect(csv.split('\r\n')[0]).toContain('frequency [kHz],pulse length [ns],row directions');
  });
});

describe('a ticket', () => {
  it('is edited with what that undoes said, put away, opened again, and a tick is taken back', async () => {
    const { page, sql } = app;
    const [row] = await sql<{ id: string }>(`SELECT id FROM tickets WHERE title = 'Arboretum trail markers'`);
    const ticket = row!.id;
    await page.open(`/tickets/${ticket}/prepare`);
    await page.press('check-measured');
    await page.reads('station-prepare', /1 of/);
    await page.press('check-measured');
    await page.reads('station-prepare', /0 of/);
    await page.press('ticket-menu');
    await page.press('edit-ticket');
    await page.type('pieces', '32');
    await page.type('ticket-note', 'two spare for the gate');
    await page.choose('lens', '38 mm');
    await page.reads('undone', /Prepare and Place, and the setting that was taken, begin anew/);
    await page.accessible('Edit a ticket');
    await page.press('keep');
    await page.reads('ticket-note-shown', /two spare for the gate/);
    const [changed] = await sql(
      `SELECT pieces, note, restarted_at IS NOT NULL AS anew FROM tickets WHERE id = '${ticket}'`,
    );
    expect(changed).toEqual({ pieces: 32, note: 'two spare for the gate', anew: true });
    await page.press('ticket-menu');
    await page.press('put-away');
    await page.at(/\/tickets$/);
    expect(await sql(`SELECT state FROM tickets WHERE id = '${ticket}'`)).toEqual([{ state: 'done' }]);
    await page.open(`/tickets/${ticket}`);
    await page.press('ticket-menu');
    await page.press('put-away');
    await page.at(new RegExp(`/tickets/${ticket}`));
    const kinds = await sql(`SELECT kind FROM checks WHERE ticket_id = '${ticket}' ORDER BY at`);
    expect(kinds).toEqual([{ kind: 'check' }, { kind: 'taken back' }]);
  });

  it('repeats a run of the ledger with its compound, and takes the setting that was proved', async () => {
    const { page, sql } = app;
    await page.open('/ledger?grade=proved');
    await page.press('repeat');
    await page.reads('as-before', /again; Prove offers the setting that was proved/);
    await page.type('title', 'Orchid bed tags, once more');
    await page.press('keep');
    const ticket = (await page.at(/\/tickets\/[0-9a-f-]{36}\/prepare$/)).split('/').at(-2)!;
    await page.press('station-prove');
    await page.reads('offered-recipe', /Proved before[\s\S]*a piece[\s\S]*Proved[\s\S]*pieces came out good/);
    await page.press('take-recipe');
    await page.reads('recipe', /Recipe v\d/);
    const [recipe] = await sql(
      `SELECT p.grade, p.kind, p.air FROM recipe_uses u JOIN recipes p ON p.id = u.recipe_id WHERE u.ticket_id = '${ticket}'`,
    );
    expect(recipe).toEqual({ grade: 'proved', kind: 'quickest', air: 'off' });
  });
});

/** Address of the window of a row’s pairing. */
const windowOf = (row: Record<string, unknown>) =>
  `/windows/${['substrate_id', 'head_id', 'lens_id', 'compound_id'].map((column) => row[column] ?? 'bare').join('/')}`;

describe('a head that is metered anew', () => {
  it('changes no past number: neither the window of its coupons, nor what a run put at the part', async () => {
    const { page, sql } = app;
    const [run] = await sql(
      `SELECT r.id, r.ticket_id, t.substrate_id, t.compound_id, t.head_id, t.lens_id, r.revisions->>'calibration' AS calibration FROM runs r
       JOIN recipes p ON p.id = r.recipe_id JOIN tickets t ON t.id = r.ticket_id WHERE r.grade = 'proved' AND r.revisions->>'calibration' IS NOT NULL
       ORDER BY r.at DESC LIMIT 1`,
    );
    const [item] = await sql(
      `SELECT item_id AS id, body->'rows' AS rows FROM inventory_revisions WHERE id = '${run!['calibration']}'`,
    );
    const [coupon] = await sql(
      `SELECT id FROM coupons WHERE ticket_id = '${run!['ticket_id']}' AND burnt_at IS NOT NULL LIMIT 1`,
    );
    const numbers = async () => {
      const texts: string[] = [];
      for (const path of [`/ledger/${run!['id']}`, windowOf(run!), `/coupons/${coupon!['id']}`]) {
        await page.open(path);
        const isWindow = path.startsWith('/windows');
        if (isWindow) await page.press('window-table');
        const text = await page.settled(isWindow ? 'main table' : 'main');
        // Judged runs count only as long as they are of what stands on the bench now; cells of coupons stay.
        texts.push(isWindow ? text.replace(/^.*by eye$\n?/gm, '').trim() : text);
      }
      return texts;
    };
    const before = await numbers();
    expect(before[0]).toMatch(/\d\sW/);
    await page.open(`/stores/${item!['id']}`);
    await page.press('revise');
    const weaker = (item!['rows'] as { percent: number; watts: number }[])
      .map(({ percent, watts }) => `${percent}; ${(0.8 * watts).toFixed(2)}`)
      .join('\n');
    await page.type('shelf-rows', weaker);
    await page.press('keep-item');
    await page.driver.wait(
      async () => (await sql(`SELECT 1 FROM inventory_revisions WHERE item_id = '${item!['id']}'`)).length > 1,
      10_000,
      'the calibration was not kept',
    );
    expect(await numbers()).toEqual(before);
  });
});
