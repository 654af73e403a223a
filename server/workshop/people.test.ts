import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { fillInventory, openTestRig, ticketBody, type TestRig } from '../testing/rig.js';

let rig: TestRig;
let ids: Awaited<ReturnType<typeof fillInventory>>;
beforeAll(async () => {
  rig = await openTestRig();
  ids = await fillInventory(rig);
});
afterAll(() => rig.close());

const people = async () =>
  (await rig.call('GET', '/api/operators')).body as { id: string; name: string; version: number; retired: boolean }[];
const change = (id: string, body: object) => rig.call('PUT', `/api/operators/${id}`, body);

describe('people', () => {
  it('are renamed, with a version as everything that several may change', async () => {
    const [ines] = await people();
    const renamed = { version: 1, name: 'Ines Varga-Holm', role: 'lead', retired: false };
    expect((await change(ines!.id, renamed)).body).toEqual({ ...renamed, id: ines!.id, version: 2 });
    expect((await change(ines!.id, renamed)).body).toMatchObject({
      type: 'version-conflict',
      current: { name: 'Ines Varga-Holm', version: 2 },
    });
  });

  it('cannot be told apart by one name, unless one of them is gone', async () => {
    const create = (name: string) => rig.call('POST', '/api/operators', { id: randomUUID(), name, role: 'operator' });
    const { body: tobin } = await create('Tobin Ash');
    expect((await create(' tobin ash')).body).toMatchObject({ type: 'invalid-input', faults: [{ path: 'name' }] });
    const gone = { version: 1, name: 'Tobin Ash', role: 'operator', retired: true };
    expect((await change(tobin.id, gone)).status).toBe(200);
    expect((await create('Tobin Ash')).status).toBe(200);
    expect((await change(tobin.id, { ...gone, version: 2, retired: false })).body.detail).toMatch(/works here already/);
  });

  it('who are gone enter nothing more, and what they did keeps them', async () => {
    const { body: mara } = await rig.call('POST', '/api/operators', {
      id: randomUUID(),
      name: 'Mara',
      role: 'operator',
    });
    const hers = ticketBody(ids);
    expect((await rig.call('POST', '/api/tickets', hers, { operator: mara.id })).status).toBe(200);
    await change(mara.id, { version: 1, name: 'Mara', role: 'operator', retired: true });
    const refused = await rig.call('POST', '/api/tickets', ticketBody(ids), { operator: mara.id });
    expect([refused.status, refused.body.type]).toEqual([401, 'operator-needed']);
    expect((await people()).find(({ id }) => id === mara.id)).toMatchObject({ name: 'Mara', retired: true });
    expect((await rig.call('GET', `/api/tickets/${hers.id}`)).status).toBe(200);
  });

  it('are never all gone', async () => {
    const working = (await people()).filter(({ retired }) => !retired);
    for (const { id, name, version } of working.filter(({ id: one }) => one !== rig.operator))
      expect((await change(id, { version, name, role: 'operator', retired: true })).status).toBe(200);
    const last = (await people()).find(({ id }) => id === rig.operator)!;
    const answer = await change(last.id, { version: last.version, name: last.name, role: 'lead', retired: true });
    expect(answer.body).toMatchObject({ type: 'invalid-input', faults: [{ path: 'retired' }] });
  });
});
