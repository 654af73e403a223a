import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { fillInventory, openTestRig, storeBody, ticketBody, type TestRig } from '../testing/rig.js';

let rig: TestRig;
let ids: Awaited<ReturnType<typeof fillInventory>>;
beforeAll(async () => {
  rig = await openTestRig();
  ids = await fillInventory(rig);
});
afterAll(() => rig.close());

const seen = (change: object = {}) => ({
  id: randomUUID(),
  label: 'Mystery blank box',
  ticketId: null,
  blankId: null,
  words: { colour: 'bright silver', magnet: 'does not pull', conductivity: 'conducts', scratch: 'same metal through' },
  weighed: null,
  guessKey: 'stainless-304',
  substrateId: null,
  ...change,
});
const keep = (change: object = {}) => rig.call('POST', '/api/identifications', seen(change));
const WEIGHED = {
  mass: { value: 19.2, unit: 'g' },
  by: 'sheet',
  lengthMm: 50,
  widthMm: 40,
  thicknessMm: 1.2,
  displacedMl: null,
};

describe('identifying a part', () => {
  it('keeps what was seen with the probabilities computed here', async () => {
    const { status, body } = await keep({ weighed: WEIGHED });
    expect(status, JSON.stringify(body)).toBe(200);
    expect(body.density.value).toBeCloseTo(8, 9);
    expect(body.probabilities[0]).toMatchObject({ key: 'stainless-304' });
    expect(body.probability).toBe(body.probabilities[0].probability);
    const {
      body: { records: list },
    } = await rig.call('GET', '/api/identifications');
    expect(list[0].id).toBe(body.id);
  });

  it('works in ounces and by the water pushed away', async () => {
    const weighed = { ...WEIGHED, mass: { value: 2.9805, unit: 'oz' }, by: 'water', displacedMl: 10 };
    const { body } = await keep({ weighed, guessKey: 'brass' });
    expect(body.density.value).toBeCloseTo(8.45, 2);
  });

  it('keeps a density that fits nothing, uncounted', async () => {
    const { body: odd } = await keep({ weighed: { ...WEIGHED, mass: { value: 60, unit: 'g' } } });
    const { body: without } = await keep();
    expect(odd.density.value).toBeCloseTo(25, 9);
    expect(odd.probability).toBeCloseTo(without.probability, 12);
  });

  it('books ticket and blank on a substrate of the same family and layer', async () => {
    const mystery = randomUUID();
    await rig.call('POST', '/api/inventory', { id: mystery, kind: 'blank', body: storeBody('blank') });
    const painted = randomUUID();
    await rig.call('POST', '/api/inventory', {
      id: painted,
      kind: 'substrate',
      body: { ...storeBody('substrate'), layer: 'painted' },
    });
    const { body: ticket } = await rig.call('POST', '/api/tickets', ticketBody(ids, { substrateId: painted }));
    const { status } = await keep({ ticketId: ticket.id, blankId: mystery, substrateId: ids.substrate });
    expect(status).toBe(200);
    const [row] = await rig.sql<any>(`SELECT substrate_id, version FROM tickets WHERE id = '${ticket.id}'`);
    expect(row).toEqual({ substrate_id: ids.substrate, version: 2 });
    const {
      body: { records: items },
    } = await rig.call('GET', '/api/inventory?kind=blank');
    expect(items.find((item: any) => item.id === mystery)).toMatchObject({
      revision: 2,
      body: { substrateId: ids.substrate },
    });
    const refused = await keep({ ticketId: ticket.id, substrateId: painted });
    expect(refused.body.faults[0]).toMatchObject({
      path: 'substrateId',
      message: expect.stringMatching(/painted.*304 or 316/),
    });
  });

  it('refuses a measure left out, a volume of nothing, an answer that is none and a guess that is none', async () => {
    expect((await keep({ weighed: { ...WEIGHED, widthMm: null } })).body.faults[0]).toMatchObject({
      path: 'weighed.widthMm',
    });
    expect((await keep({ weighed: { ...WEIGHED, mass: { value: 0, unit: 'g' } } })).body.faults[0].message).toMatch(
      /above 0/,
    );
    expect((await keep({ words: { magnet: 'sings' } })).body.faults[0].message).toMatch(/Magnet must be one of/);
    expect((await keep({ guessKey: 'cheese' })).status).toBe(422);
  });

  it('is the same once more from the same request, and never changed', async () => {
    const body = seen();
    const first = await rig.call('POST', '/api/identifications', body);
    expect((await rig.call('POST', '/api/identifications', body)).body).toEqual(first.body);
    await expect(rig.sql('DELETE FROM identifications')).rejects.toThrow(/append-only/);
  });
});
