import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { fillInventory, openTestRig, runBody, storeBody, ticketBody, type TestRig } from '../testing/rig.js';

let rig: TestRig;
let ids: Awaited<ReturnType<typeof fillInventory>>;
/** A ledger of one run, as it was taken out; the run itself is gone. */
let file: { runs: Record<string, any>[] };
let key = '';
beforeAll(async () => {
  rig = await openTestRig();
  ids = await fillInventory(rig);
  const ticket = ticketBody(ids);
  await rig.call('POST', '/api/tickets', ticket);
  await rig.call('POST', '/api/runs', runBody(ticket.id));
  file = JSON.parse(await (await fetch(`${rig.base}/api/ledger.json`)).text());
  key = Object.keys(file).find((name) => Array.isArray(file[name as 'runs']))!;
});
beforeEach(() => rig.sequelize.query('TRUNCATE runs CASCADE'));
afterAll(() => rig.close());

const original = () => file[key as 'runs'][0]!;
const bring = (...records: object[]) =>
  rig.call('POST', '/api/ledger/import?format=json', JSON.stringify({ ...file, [key]: records }), {
    headers: { 'content-type': 'application/octet-stream' },
  });
const kept = () => rig.sql<Record<string, any>>('SELECT * FROM runs');
/** Status of an answer that came to its end. */
async function whole(path: string): Promise<number> {
  const answer = await fetch(rig.base + path);
  await answer.text();
  return answer.status;
}
/** Everything that reads runs still answers, to the end. */
async function readsOn() {
  for (const path of [
    '/api/today',
    '/api/ledger',
    '/api/ledger.csv',
    '/api/ledger.json',
    `/api/tickets/${original()['ticketId']}`,
  ])
    expect(await whole(path), path).toBe(200);
}

describe('a ledger that is brought in', () => {
  it('comes back as it was taken out', async () => {
    expect((await bring(original())).body).toMatchObject({ created: 1, problems: [] });
    expect((await bring(original())).body).toMatchObject({ created: 0, unchanged: 1 });
    await readsOn();
  });

  it.each([
    ['a lens revision that is none', () => ({ revisions: { ...original()['revisions'], lens: 'a lens' } }), /lens/],
    [
      'a lens revision of something else',
      () => ({ revisions: { ...original()['revisions'], lens: original()['revisions'].head } }),
      /its lens revision .* is none that is kept here/,
    ],
    ['no revisions at all', () => ({ revisions: null }), /its substrate revision \(none\)/],
    ['a year far ahead', () => ({ at: '99999-01-01T00:00:00.000Z' }), /no moment of a run/],
    ['a moment that is none', () => ({ at: 'yesterday' }), /no moment|at/],
    ['a grade that is none', () => ({ grade: 'holy' }), /grade/],
    ['a correction of itself', () => ({ correctsId: original()['id'] }), /corrects itself/],
    ['a correction of what is nowhere', () => ({ correctsId: randomUUID() }), /neither here nor in the file/],
    ['a dose that is no figure', () => ({ dose: 'much' }), /dose/],
    ['pieces without end', () => ({ pieces: 1e12 }), /Pieces/],
  ])('with %s is refused with its line, and nothing is kept', async (_what, change, says) => {
    const { status, body } = await bring({ ...original(), ...change() });
    expect(status).toBe(422);
    expect(body.faults.map(({ message }: { message: string }) => message).join('\n')).toMatch(says);
    expect(body.faults[0].line).toBeGreaterThan(0);
    expect(await kept()).toEqual([]);
    await readsOn();
  });

  it('of another head than its revisions is refused', async () => {
    const other = { id: randomUUID(), kind: 'head', body: { ...storeBody('head', ids), name: 'Other' } };
    await rig.call('POST', '/api/inventory', other);
    const { body } = await bring({ ...original(), headId: other.id });
    expect(body.faults[0].message).toMatch(/its head revision is of another head than the run’s/);
    expect(await kept()).toEqual([]);
  });

  it.each(['proved', 'measured', 'proved by eye', 'carried'])(
    'with the grade %s and no evidence comes in as stated, and says why',
    async (grade) => {
      await bring({ ...original(), grade, because: [] });
      const [run] = await kept();
      expect(run).toMatchObject({ grade: 'stated', because: expect.arrayContaining(['brought from a file']) });
    },
  );

  it('has its figures worked out here, whatever the file says they are', async () => {
    const dose = { ...original()['dose'], value: 99 };
    await bring({ ...original(), powerW: 4000, speedMmPerS: 1, dose });
    const [run] = await kept();
    expect(run!['power_w']).toBeCloseTo(original()['powerW'], 9);
    expect(run!['speed_mm_per_s']).toBeCloseTo(original()['speedMmPerS'], 9);
    expect(run!['dose'].value).toBeCloseTo(original()['dose'].value, 9);
  });

  it('is read on where a row of before refers to nothing', async () => {
    await bring(original());
    await rig.sql('ALTER TABLE runs DISABLE TRIGGER USER');
    await rig.sql(`UPDATE runs SET revisions = revisions || '{"lens": "none"}'`);
    await rig.sql('ALTER TABLE runs ENABLE TRIGGER USER');
    await readsOn();
  });
});
