import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { TYPICAL_PRINT } from '@unto/core';
import { openTestRig, type TestRig } from '../testing/rig.js';

let rig: TestRig;
beforeAll(async () => {
  rig = await openTestRig();
});
afterAll(() => rig.close());

const body = (change: object = {}) => ({
  ...{ id: randomUUID(), size: 'A5', print: { ...TYPICAL_PRINT, basis: 'measured' }, white: null, fileHash: null },
  ...change,
});
const keep = (change: object = {}) => rig.call('POST', '/api/cards', body(change));

it('keeps what a card throws back, the newest of each size counting, and changes none that was kept', async () => {
  expect((await rig.call('GET', '/api/cards')).body).toEqual([]);
  await keep();
  rig.now = new Date(rig.now.getTime() + 60_000);
  await keep({ print: { basis: 'photographed', paper: 0.8, steps: [0.6, 0.4, 0.25, 0.14, 0.08, 0.05] }, white: 0.9 });
  const { body: cards } = await keep({ size: 'A4' });
  expect(cards.map(({ size, print }: any) => [size, print.basis])).toEqual([
    ['A5', 'photographed'],
    ['A4', 'measured'],
  ]);
  await expect(rig.sql('UPDATE cards SET white = 1')).rejects.toThrow(/append-only/);
});

it('refuses at its field what no print throws back, and a picture that is not kept', async () => {
  const steps = [...TYPICAL_PRINT.steps].reverse();
  const reversed = await keep({ print: { ...TYPICAL_PRINT, basis: 'measured', steps } });
  expect(reversed.body.faults[0]).toMatchObject({
    path: 'print.steps.1',
    message: expect.stringMatching(/darker than step 1/),
  });
  const dark = await keep({ print: { ...TYPICAL_PRINT, basis: 'measured', paper: 0.2 } });
  expect(dark.body.faults[0].path).toBe('print.paper');
  expect((await keep({ fileHash: 'a'.repeat(64) })).body.faults[0].path).toBe('fileHash');
});
