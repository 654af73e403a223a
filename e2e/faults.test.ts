import { describe, expect, it } from 'vitest';
import { useApp } from './app.js';

const app = useApp();

const idOf = async (title: string) =>
  (await app.sql<{ id: string }>(`SELECT id FROM tickets WHERE title = '${title}'`))[0]!.id;

describe('the shutter-drive scale, pale along one edge', () => {
  it('is traced to the air by a quick test; the compound then says so, and Mark asks', async () => {
    const { page, sql } = app;
    await page.signIn('Ines');
    const scale = await idOf('Shutter-drive scale');
    await page.open(`/tickets/${scale}/judge`);
    await page.press('judge-fault');
    await page.reads('causes', /Air blew the powder off[\s\S]*air on, over loose powder/);
    await page.press('fault-place');
    await page.accessible('Find the fault');
    // Heights tell the tilt from the air.
    await page.reads('fault-test', /Read five heights/);
    await page.press('start-test');
    await page.press('test-clear');
    await page.reads('causes', /Air blew the powder off/);
    await page.press('cause-air blew the powder');
    await page.press('remedy-compound air off');
    await page.press('remedy-question');
    await page.press('way-redo the region');
    await page.press('settle-fault');
    await page.reads('settled', /It was[\s\S]*Air blew the powder off[\s\S]*Mark asks: Air assist shut at its valve/);
    const [settled] = await sql(
      `SELECT f.causes, f.way, (f.plan->>'minutes')::float > 5 AS planned, t.test, t.result, l.faults,
         f.chances->0->>'cause' AS likeliest
       FROM fault_cases c JOIN fault_findings f ON f.case_id = c.id JOIN fault_tests t ON t.case_id = c.id
       JOIN fault_looks l ON l.case_id = c.id WHERE c.ticket_id = '${scale}'`,
    );
    expect(settled).toEqual({
      ...{ causes: ['air blew the powder'], way: 'redo the region', planned: true },
      ...{ test: 'heights', result: 'clear', faults: ['pale along one edge'], likeliest: 'air blew the powder' },
    });
    const [compound] = await sql(
      `SELECT r.body->>'airAssist' AS air FROM inventory_items i JOIN inventory_revisions r ON r.id = i.revision_id
       WHERE r.body->>'name' = 'Soothollow'`,
    );
    expect(compound).toEqual({ air: 'off' });
  });

  it('is made again along its edge: coated, the question answered, run with the air off, judged, linked to the first', async () => {
    const { page, sql } = app;
    const scale = await idOf('Shutter-drive scale');
    await page.type('region-y', '0');
    await page.type('region-height', '4');
    await page.press('keep-rework');
    await page.reads('rework', /Piece 1: redo the region, 160 × 4 mm/);
    await page.open(`/tickets/${scale}/coat`);
    await page.choose('container', 'Soothollow');
    await page.type('before', '210');
    await page.type('after', '208.4');
    await page.type('weigh-pieces', '1');
    await page.press('keep-weighing');
    await page.reads('film-verdict', /µm dry on 1 piece/i);
    await page.press('start-drying');
    await page.reads('drying', /Drying by itself/);
    await sql(
      `UPDATE timers SET started_at = started_at - interval '20 minutes' WHERE ticket_id = '${scale}' AND ended_at IS NULL`,
    );
    await page.open(`/tickets/${scale}/coat`);
    await page.press('gloss-gone');
    await page.gone('drying');
    await page.open(`/tickets/${scale}/mark`);
    await page.reads('open-stations', /not answered: Air assist shut at its valve/);
    const [question] = await sql<{ id: string }>(`SELECT id FROM station_questions`);
    await page.press(`asked-${question!.id}`);
    await page.driver.wait(
      async () => (await sql(`SELECT 1 FROM checks WHERE code = 'question-${question!.id}'`)).length === 1,
      10_000,
      'the answer was not kept',
    );
    await page.press('way-log');
    await page.choose('run-rework', 'redo the region');
    await page.choose('air', 'off');
    await page.type('run-pieces', '1');
    await page.type('minutes', '6');
    await page.type('run-reason', 'only the edge of one piece');
    await page.press('log-run');
    await page.at(/\/clean$/);
    const [done] = await sql(
      `SELECT r.air, r.pieces, w.way, w.region->>'heightMm' AS high, first.id <> r.id AS another
       FROM rework_runs d JOIN runs r ON r.id = d.run_id JOIN reworks w ON w.id = d.rework_id JOIN runs first ON first.id = w.run_id`,
    );
    expect(done).toEqual({ air: 'off', pieces: 1, way: 'redo the region', high: '4', another: true });
    await page.choose('method', 'water and sponge');
    await page.type('clean-minutes', '1');
    await page.choose('residue', 'none');
    await page.press('keep-cleaning');
    await page.at(/\/judge$/);
    await page.choose('contrast', '4 strong');
    await page.choose('evenness', 'even');
    await page.type('good', '1');
    await page.press('keep-judgement');
    await page.says(/runs are judged/);
    await page.open('/causes');
    await page.reads('found-causes', /Air blew the powder off/);
    await page.reads('questions', /Mark:[\s\S]*Air assist shut at its valve/);
    await page.accessible('What went wrong');
    await page.quiet();
  });
});

describe('a coupon that came out badly', () => {
  it('is looked at from its own page, by what its cells say', async () => {
    const { page, sql } = app;
    const [coupon] = await sql<{ id: string }>(
      `SELECT c.id FROM coupons c JOIN tickets t ON t.id = c.ticket_id WHERE t.title = 'Shutter-drive scale' LIMIT 1`,
    );
    await page.open(`/coupons/${coupon!.id}`);
    await page.press('find-fault');
    await page.at(/\/faults\/coupon\//);
    await page.press('look-grainy');
    await page.reads('causes', /of 100/);
    await page.press('cause-interval too wide');
    await page.press('settle-fault');
    await page.reads('settled', /Lines too far apart/);
    expect(await sql(`SELECT kind FROM fault_cases WHERE coupon_id = '${coupon!.id}'`)).toEqual([{ kind: 'coupon' }]);
  });
});
