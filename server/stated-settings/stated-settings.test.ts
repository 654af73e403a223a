import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { PLAIN_SETTING } from '@unto/core';
import { fillInventory, openTestRig, type TestRig } from '../testing/rig.js';

let rig: TestRig;
beforeAll(async () => {
  rig = await openTestRig();
  await fillInventory(rig);
});
afterAll(() => rig.close());

describe('stated settings', () => {
  it('stay unknown where something was not stated, and are kept as typed', async () => {
    const stated = {
      id: randomUUID(),
      title: 'Ceramic',
      family: 'glazed ceramic',
      wavelengthClass: 'co2',
      compound: '',
      ratedW: 35,
      topSpeedMmPerS: null,
      power: { value: 50, unit: '%' },
      speed: { value: 25, unit: '%' },
      interval: null,
      ...PLAIN_SETTING,
      source: 'label',
      note: '',
    };
    const { body } = await rig.call('POST', '/api/stated-settings', stated);
    expect(body).toMatchObject({ speed: { value: 25, unit: '%' }, powerW: 17.5, speedMmPerS: null, doseJPerMm2: null });
    const known = {
      ...stated,
      id: randomUUID(),
      ratedW: 10,
      topSpeedMmPerS: 508,
      power: { value: 7, unit: 'W' },
      speed: { value: 50, unit: '%' },
      interval: { value: 0.001, unit: 'in' },
    };
    expect((await rig.call('POST', '/api/stated-settings', known)).body.doseJPerMm2).toBeCloseTo(1.085, 3);
    expect(
      (await rig.call('POST', '/api/stated-settings', { ...known, id: randomUUID(), power: { value: 12, unit: 'W' } }))
        .status,
    ).toBe(422);
  });

  it('of an old sheet are kept all or none, and once', async () => {
    const line = (change: object = {}) => ({
      ...PLAIN_SETTING,
      ...{ id: randomUUID(), title: 'Line', family: 'brass', wavelengthClass: 'co2', compound: 'Corvid Film' },
      ...{ ratedW: 40, topSpeedMmPerS: null, interval: null, source: 'old sheet', note: '' },
      ...{ power: { value: 90, unit: '%' }, speed: { value: 200, unit: 'mm/s' } },
      past: { on: '2025-04-13', pieces: 12, minutes: 2.5, outcome: 'held' },
      ...change,
    });
    const count = async () => (await rig.call('GET', '/api/stated-settings')).body.records.length;
    const before = await count();
    const bring = (settings: object[]) => rig.call('POST', '/api/stated-settings/several', { settings });
    const bad = await bring([line(), line({ power: { value: 900, unit: '%' } })]);
    expect(bad.status).toBe(422);
    expect(bad.body.faults[0].path).toMatch(/settings\[1\]/);
    expect(await count()).toBe(before);
    const settings = [line(), line()];
    expect((await bring(settings)).body.map(({ past }: any) => past.outcome)).toEqual(['held', 'held']);
    expect((await bring([line({ past: { ...settings[0]!.past, on: '2025-02-30' } })])).status).toBe(422);
    expect((await bring(settings)).status).toBe(200);
    expect(await count()).toBe(before + 2);
    expect((await bring([])).status).toBe(422);
  });
});
