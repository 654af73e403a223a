import { afterAll, beforeAll, expect, it } from 'vitest';
import { problemOf } from '../errors/api-error.js';
import { openTestRig, type TestRig } from '../testing/rig.js';
import { DatabaseError } from 'sequelize';

let rig: TestRig;
let free = 0.5;
beforeAll(async () => {
  // What the system says of a disk without room: errno ENOSPC.
  const put = () =>
    Promise.reject(Object.assign(new Error('ENOSPC: no space left on device, write'), { code: 'ENOSPC' }));
  rig = await openTestRig({ store: { put, freeShare: async () => free } });
});
afterAll(() => rig.close());

it('says that the disk is full where a file finds no room, keeps nothing half, and reads on', async () => {
  const answer = await fetch(`${rig.base}/api/files?name=a.jpg`, {
    method: 'POST',
    headers: { 'content-type': 'image/jpeg', 'x-unto-operator': rig.operator },
    body: Buffer.from([0xff, 0xd8, 0xff, 0xe0, 1]),
  });
  expect(answer.status).toBe(507);
  expect(await answer.json()).toMatchObject({
    type: 'disk-full',
    detail: expect.stringMatching(/disk of the server is full/),
  });
  expect(await rig.sql('SELECT id FROM stored_files')).toEqual([]);
  expect((await rig.call('GET', '/api/today')).status).toBe(200);
});

it('says so too where the database finds none', () => {
  // PostgreSQL, appendix A: class 53, disk_full.
  const parent = Object.assign(new Error('could not extend file'), { code: '53100', sql: '' });
  expect(problemOf(new DatabaseError(parent))).toMatchObject({ type: 'disk-full', status: 507 });
});

it('tells of little room on Today and in health before it is gone', async () => {
  expect((await rig.call('GET', '/api/today')).body.short).toEqual([]);
  free = 0.034;
  rig.now = new Date(rig.now.getTime() + 5000);
  expect((await rig.call('GET', '/api/health')).body).toEqual({ state: 'up', diskFree: 0.034 });
  expect((await rig.call('GET', '/api/today')).body.short[0]).toMatchObject({
    what: 'Disk of the server',
    left: '3 % free',
  });
});
