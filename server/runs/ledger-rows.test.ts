import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { fillInventory, openTestRig, runBody, ticketBody, type TestRig } from '../testing/rig.js';

let rig: TestRig;
let ticketId: string;
const runs: { id: string }[] = [];
beforeAll(async () => {
  rig = await openTestRig();
  ticketId = (await rig.call('POST', '/api/tickets', ticketBody(await fillInventory(rig)))).body.id;
  for (let i = 0; i < 3; i += 1) runs.push(await ran({ note: `strip ${i}` }));
});
afterAll(() => rig.close());

const ran = async (change: object) =>
  (await rig.call('POST', '/api/runs', runBody(ticketId, { pieces: 2, ...change }))).body as { id: string };
const found = async (words: string) =>
  (await rig.call('GET', `/api/ledger?text=${words}`)).body.records.map(({ id }: { id: string }) => id);
/** Rows worked out anew for every run, held against what the database kept as they came. */
const astray = () =>
  rig.sql(
    `SELECT coalesce(o.id, l.id) AS id FROM ledger_row_of o FULL JOIN ledger_rows l ON l.id = o.id
     WHERE (l.at, l.judged, l.faulty, l.grade, l.words::text) IS DISTINCT FROM (o.at, o.judged, o.faulty, o.grade, o.words::text)`,
  );

async function judged(id: string, faults: string[], note: string): Promise<void> {
  const cleaned = { id: randomUUID(), method: 'dishwasher', minutes: 40, residue: 'none' };
  await rig.call('POST', `/api/runs/${id}/cleanings`, cleaned);
  const { status } = await rig.call('POST', `/api/runs/${id}/judgements`, {
    ...{ id: randomUUID(), contrastStep: 2, evenness: 'patchy', piecesGood: 0, faults, tests: [], note },
  });
  expect(status).toBe(200);
}

describe('rows that the ledger is looked through by', () => {
  it('say what the runs say as they come, are cleaned, judged and judged again', async () => {
    expect(await astray()).toEqual([]);
    await judged(runs[1]!.id, ['patchy'], 'walrus');
    expect(await astray()).toEqual([]);
    expect(await found('walrus+dishw')).toEqual([runs[1]!.id]);
    await judged(runs[1]!.id, [], 'heron');
    expect(await astray()).toEqual([]);
    expect([await found('walrus'), await found('heron')]).toEqual([[], [runs[1]!.id]]);
    expect((await rig.call('GET', '/api/ledger?judged=faulty')).body.records).toEqual([]);
  });

  it('are noted once for a file, and as ever after it', async () => {
    const file = await (await fetch(`${rig.base}/api/ledger.json`)).text();
    await rig.sequelize.query('TRUNCATE runs CASCADE');
    const { body } = await rig.call('POST', '/api/ledger/import?format=json', file, {
      headers: { 'content-type': 'application/octet-stream' },
    });
    expect(body.created).toBe(3);
    expect(await rig.sql('SELECT id FROM ledger_rows')).toHaveLength(3);
    expect(await astray()).toEqual([]);
    expect(await found('heron+dishw')).toEqual([runs[1]!.id]);
    const after = await ran({ note: 'after the file' });
    expect(await found('after+file')).toEqual([after.id]);
    expect(await astray()).toEqual([]);
  });
});
