import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { fillInventory, openTestRig, runBody, ticketBody, type TestRig, keptFile } from '../testing/rig.js';

let rig: TestRig;
let ticketId: string;
let runId: string;
let hash: string;
beforeAll(async () => {
  rig = await openTestRig();
  const ids = await fillInventory(rig);
  ticketId = (await rig.call('POST', '/api/tickets', ticketBody(ids))).body.id;
  runId = (await rig.call('POST', '/api/runs', runBody(ticketId))).body.id;
  hash = await keptFile(rig, 'rim.jpg', Buffer.from([0xff, 0xd8, 0xff, 0xe0, 1, 2]));
});
afterAll(() => rig.close());

const remark = (change: object = {}) => ({
  ...{ id: randomUUID(), ticketId, runId: null, words: ' The rim is bent. ', fileHash: null, shows: null },
  ...change,
});
const put = (change?: object) => rig.call('POST', '/api/remarks', remark(change));
const listed = async (query = '') =>
  (await rig.call('GET', `/api/remarks?ticketId=${ticketId}${query}`)).body as Record<string, any>[];

describe('notes and pictures', () => {
  it('stand beside a ticket and its runs in their order, with who put them there', async () => {
    expect(await put()).toMatchObject({
      status: 200,
      body: { words: 'The rim is bent.', by: rig.operator, file: null },
    });
    await put({ runId, words: '', fileHash: hash, shows: 'mark' });
    expect((await listed()).map(({ words, file, shows }) => [words, file?.name ?? null, shows])).toEqual([
      ['The rim is bent.', null, null],
      ['', 'rim.jpg', 'mark'],
    ]);
    expect(await listed(`&runId=${runId}`)).toHaveLength(1);
  });

  it('are put down once however often they are sent, and taken out of sight and back', async () => {
    const one = remark({ words: 'Twice sent.' });
    for (let i = 0; i < 2; i += 1) expect((await rig.call('POST', '/api/remarks', one)).status).toBe(200);
    const before = (await listed()).length;
    await rig.call('PUT', `/api/remarks/${one.id}/retired`, { retired: true });
    expect(await listed()).toHaveLength(before - 1);
    await rig.call('PUT', `/api/remarks/${one.id}/retired`, { retired: false });
    expect(await listed()).toHaveLength(before);
  });

  it('are refused where there is nothing to say, no such picture, or the run is of another ticket', async () => {
    const refused = async (change: object) => (await put(change)).body.faults?.[0];
    expect(await refused({ words: '  ' })).toMatchObject({
      path: 'words',
      message: 'Write a note, or bring a picture.',
    });
    expect(await refused({ fileHash: 'f'.repeat(64) })).toMatchObject({ path: 'fileHash' });
    const other = (await rig.call('POST', '/api/tickets', ticketBody(await fillInventory(rig)))).body.id;
    expect(await refused({ ticketId: other, runId })).toMatchObject({ path: 'runId' });
    expect((await put({ ticketId: randomUUID() })).status).toBe(404);
  });
});
