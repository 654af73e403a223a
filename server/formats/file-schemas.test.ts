import { randomUUID } from 'node:crypto';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { fillInventory, openTestRig, runBody, ticketBody, type TestRig } from '../testing/rig.js';

let rig: TestRig;
beforeAll(async () => {
  rig = await openTestRig();
  const ids = await fillInventory(rig);
  const { body: ticket } = await rig.call('POST', '/api/tickets', ticketBody(ids));
  for (let i = 0; i < 3; i += 1) await rig.call('POST', '/api/runs', runBody(ticket.id, { pieces: i + 1 }));
  const { body } = await rig.call('GET', '/api/ledger');
  const run = `/api/runs/${body.records[0].id}`;
  const cleaned = { id: randomUUID(), method: 'water and sponge', minutes: 2, residue: 'trace' };
  await rig.call('POST', `${run}/cleanings`, cleaned);
  await rig.call('POST', `${run}/judgements`, {
    ...{ id: randomUUID(), contrastStep: 4, evenness: 'even', piecesGood: 1, faults: ['grainy'], note: '' },
    tests: [{ test: 'abrasive pad', result: 'no change' }],
  });
});
afterAll(() => rig.close());

/** An independent reader of JSON Schema; formats are annotations in 2020-12. */
async function readerOf(file: string) {
  const { body } = await rig.call('GET', `/api/schemas/${file}`);
  return new Ajv2020({ strict: false, validateFormats: false, allErrors: true }).compile(body);
}

describe('schemas of the files that go out', () => {
  it.each([
    ['ledger', '/api/ledger.json'],
    ['stores', '/api/inventory.json'],
  ])('an independent reader finds the file of the %s as its schema says', async (file, path) => {
    const [valid, { body }] = [await readerOf(file), await rig.call('GET', path)];
    valid(body);
    expect(valid.errors).toBeNull();
  });

  it('and refuses one that was changed: another format, a word that is none, a field left out', async () => {
    const valid = await readerOf('ledger');
    const { body } = await rig.call('GET', '/api/ledger.json');
    const [first, ...rest] = body.records;
    const { pieces: _pieces, ...lacking } = first;
    for (const changed of [
      { ...body, format: 'other' },
      { ...body, version: 2 },
      { ...body, records: [{ ...first, grade: 'certain' }, ...rest] },
      { ...body, records: [lacking, ...rest] },
      { ...body, around: { ...body.around, tickets: [{}] } },
    ])
      expect(valid(changed)).toBe(false);
  });

  it('there is none of anything else', async () => {
    expect((await rig.call('GET', '/api/schemas/constructor')).status).toBe(404);
  });
});
