import { OUTCOMES, seededRandom, usualRules } from '@unto/core';
import { newestReads } from '@unto/domain';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { BURNT, DESIGN, fillInventory, openTestRig, type TestRig, windowAddress } from '../testing/rig.js';

let rig: TestRig;
let ids: Awaited<ReturnType<typeof fillInventory>>;
beforeAll(async () => {
  rig = await openTestRig();
  ids = await fillInventory(rig);
});
afterAll(() => rig.close());

async function burnt(): Promise<string> {
  const id = randomUUID();
  const pairing = { substrateId: ids.substrate, compoundId: ids.compound, headId: ids.head, lensId: ids.lens };
  await rig.call('POST', '/api/coupons', { id, ticketId: null, ...pairing, focusOffsetMm: 0, design: DESIGN });
  await rig.call('PUT', `/api/coupons/${id}/burnt`, BURNT);
  return id;
}
const read = (id: string, source: string, entries: object[], stage = 'scrubbed') =>
  rig.call('POST', `/api/coupons/${id}/readings`, { id: randomUUID(), stage, source, entries });
const cellsOf = async (coupon: string): Promise<any[]> =>
  (await rig.call('GET', windowAddress(ids))).body.cells.filter(({ couponId }: any) => couponId === coupon);

it('is refused of a cell that nobody read, or that is not there', async () => {
  const id = await burnt();
  await read(id, 'entered', [{ cell: 0, outcome: 'holds' }], 'rinsed');
  await read(id, 'entered', [{ cell: 1, outcome: 'holds' }]);
  for (const [cell, said] of [
    [0, /Cell 1 of .* was not read yet: read it first/],
    [99, /There is no cell 100/],
  ] as const) {
    const { status, body } = await read(id, 'again', [{ cell, outcome: 'under' }]);
    expect([status, body.detail]).toEqual([422, expect.stringMatching(said)]);
  }
  expect(await cellsOf(id)).toHaveLength(1);
});

it('bears out what was read, or says otherwise, until the cell is read anew', async () => {
  const id = await burnt();
  await read(
    id,
    'entered',
    [0, 1, 2].map((cell) => ({ cell, outcome: 'holds' })),
  );
  await read(id, 'again', [{ cell: 1, outcome: 'holds' }]);
  await read(id, 'again', [{ cell: 2, outcome: 'over' }]);
  const told = async () => (await cellsOf(id)).map(({ outcome, lookedAgain }) => [outcome, lookedAgain]);
  expect(await told()).toEqual([
    ['holds', false],
    ['holds', true],
    ['over', true],
  ]);
  await read(id, 'entered', [{ cell: 1, outcome: 'under' }]);
  expect((await told())[1]).toEqual(['under', false]);
});

it('is told by the database as the page works it out, whatever was read in whatever order', async () => {
  const id = await burnt();
  const random = seededRandom(31);
  const oneOf = <T>(values: readonly T[]) => values[Math.floor(random() * values.length)]!;
  const rules = usualRules('dark on light');
  const readings = Array.from({ length: 60 }, () => {
    const source = oneOf(['picture', 'entered', 'again']);
    const pictured = source === 'picture';
    const entries = [0, 1, 2, 3, 4].flatMap((cell) =>
      random() < 0.5
        ? [{ cell, outcome: oneOf(OUTCOMES), ...(pictured ? { proposed: oneOf(OUTCOMES), kept: random() } : {}) }]
        : [],
    );
    return { stage: oneOf(['rinsed', 'scrubbed'] as const), source, rules: pictured ? rules : null, entries };
  });
  for (const [i, { stage, source, rules: held, entries }] of readings.entries()) {
    const [row, said] = [held && JSON.stringify(held), JSON.stringify(entries)];
    await rig.sql(
      `INSERT INTO readings (id, coupon_id, stage, source, rules, entries, at, by_id)
       SELECT '${randomUUID()}', '${id}', '${stage}', '${source}', ${row ? `'${row}'::jsonb` : 'NULL'}, '${said}'::jsonb, now(), id
       FROM operators LIMIT 1`,
    );
    if (i % 10 !== 9) continue;
    for (const at of ['rinsed', 'scrubbed'] as const) {
      const rows: any[] = await rig.sql(
        `SELECT cell, outcome, by_eye, looked_again, kept, kept_limit FROM cell_outcomes
         WHERE coupon_id = '${id}' AND stage = '${at}' ORDER BY cell`,
      );
      const told = new Map(
        rows.map(({ cell, outcome, by_eye: byEye, looked_again: lookedAgain, kept: share, kept_limit: limit }) => [
          cell,
          { outcome, byEye, lookedAgain, kept: share === null ? null : { share, limit } },
        ]),
      );
      const worked = newestReads({ readings: readings.slice(0, i + 1) as never }, at);
      expect(told).toEqual(new Map([...worked].sort(([a], [b]) => a - b)));
    }
  }
});
