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

const messages = (body: any): string[] => body.faults.map(({ message }: { message: string }) => message);

describe('stores', () => {
  it('make a new revision of every edit and keep the old', async () => {
    const id = randomUUID();
    await rig.call('POST', '/api/inventory', { id, kind: 'substrate', body: storeBody('substrate') });
    const { body: second } = await rig.call('PUT', `/api/inventory/${id}`, {
      version: 1,
      body: { ...storeBody('substrate'), thicknessMm: 1.5 },
    });
    expect([second.version, second.revision]).toEqual([2, 2]);
    const { body: history } = await rig.call('GET', `/api/inventory/${id}/revisions`);
    expect(history.map((revision: any) => revision.body.thicknessMm)).toEqual([1.5, 1.2]);
  });

  it('offer both versions to whoever comes second', async () => {
    const id = randomUUID();
    await rig.call('POST', '/api/inventory', { id, kind: 'substrate', body: storeBody('substrate') });
    await rig.call('PUT', `/api/inventory/${id}`, { version: 1, body: { ...storeBody('substrate'), name: 'first' } });
    const { status, body } = await rig.call('PUT', `/api/inventory/${id}`, {
      version: 1,
      body: { ...storeBody('substrate'), name: 'second' },
    });
    expect([status, body.type, body.current.body.name]).toEqual([409, 'version-conflict', 'first']);
  });

  it('refuse bad bodies at their fields', async () => {
    const refuse = async (kind: string, body: object) =>
      (await rig.call('POST', '/api/inventory', { id: randomUUID(), kind, body })).body;
    expect(
      messages(await refuse('compound', { ...storeBody('compound'), dryFilmMinUm: 12, dryFilmMaxUm: 8 }))[0],
    ).toMatch(/must rise/);
    expect(messages(await refuse('compound', { ...storeBody('compound'), dryS: 0 }))[0]).toMatch(/above 0/);
    expect(
      messages(
        await refuse('calibration', {
          ...storeBody('calibration', ids),
          rows: [
            { percent: 10, watts: 5 },
            { percent: 20, watts: 4 },
          ],
        }),
      )[0],
    ).toMatch(/falls from 5 at 10/);
    expect(messages(await refuse('lens', { ...storeBody('lens', ids), focalLengthMm: undefined }))[0]).toMatch(
      /Focal length is missing/,
    );
    expect(messages(await refuse('head', storeBody('head', { machine: ids.compound })))[0]).toMatch(/Choose a machine/);
    expect(messages(await refuse('substrate', { ...storeBody('substrate'), surprise: 1 }))[0]).toMatch(
      /surprise|unspecified/,
    );
  });

  it('keep a retired item out of new work', async () => {
    const id = randomUUID();
    await rig.call('POST', '/api/inventory', { id, kind: 'substrate', body: storeBody('substrate') });
    await rig.call('PUT', `/api/inventory/${id}/retired`, { version: 1, retired: true });
    const { body } = await rig.call('POST', '/api/tickets', ticketBody({ ...ids, substrate: id }));
    expect(body.faults[0]).toMatchObject({ path: 'substrateId', message: expect.stringContaining('retired') });
  });
});
