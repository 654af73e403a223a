import type { AddressInfo } from 'node:net';
import { once } from 'node:events';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { couponGcode, GRAMS_PER_OUNCE, lightness, luminance } from '@unto/core';
import type { ControllerState, ScaleReading } from '@unto/contract';
import { decoded } from './camera/index.js';
import { simulatorServer } from './serve.js';
import { STUDY_DESIGN, STUDY_MOTION, studyMoves, studyReading, studySetup } from './testing/coupon-study.js';

const server = simulatorServer(7);
let base = '';
beforeAll(async () => {
  server.listen(0, '127.0.0.1');
  await once(server, 'listening');
  base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(() => new Promise((resolve) => server.close(resolve)));

const post = (path: string, body: unknown) => fetch(base + path, { method: 'POST', body: JSON.stringify(body) });
const choose = (path: string, choice: string) =>
  fetch(base + path, { method: 'POST', body: new URLSearchParams({ choice }), redirect: 'manual' });
const SCENE = { key: 'can', moment: 'before', batch: 't', lastKnownG: 310.4, massToApplyG: 12, massSolids: 0.2 };
const look = async (change: object = {}): Promise<ScaleReading> => {
  await post('/scene/scale', { at: 'scale', ...SCENE, ...change });
  return (await (await post('/scale/weigh', {})).json()) as ScaleReading;
};

describe('the page of the simulated devices', () => {
  it('offers what can be wrong with each, marks what is so, and takes another', async () => {
    const page = async () => (await fetch(base)).text();
    expect(await page()).toMatch(/<h2>Scale<\/h2>.*value="none" disabled>in order/);
    expect((await choose('/scale/fault', 'in ounces')).status).toBe(303);
    expect(await page()).toMatch(/value="in ounces" disabled/);
    await choose('/scale/fault', 'none');
  });

  it.each(['/scale/fault', '/camera/scene', '/camera/coupon', '/controller/fault', '/controller/pace'])(
    'refuses at %s what it does not know',
    async (path) => {
      const answer = await choose(path, 'on fire');
      expect([answer.status, await answer.json()]).toEqual([422, { detail: 'No such choice.' }]);
    },
  );

  it('says no in order where nothing is, and to what is no JSON', async () => {
    expect((await fetch(`${base}/kettle`)).status).toBe(404);
    expect((await post('/kettle', {})).status).toBe(404);
    expect((await fetch(`${base}/scene/scale`, { method: 'POST', body: '{' })).status).toBe(409);
  });
});

describe('the scale', () => {
  it('settles on its third look at the same thing, and says so itself', async () => {
    const stable = [];
    for (let i = 0; i < 4; i += 1) stable.push((await look({ key: 'jar' })).stable);
    expect(stable).toEqual([false, false, true, true]);
    expect(await look({ key: 'jar' })).toEqual({ value: 310.4, unit: 'g', stable: true });
    expect((await look({ key: 'other' })).stable).toBe(false);
  });

  it('in ounces shows the same mass in ounces; below nought it shows that; unsteady it never settles', async () => {
    const settled = async () => [await look(), await look(), await look()].at(-1)!;
    await choose('/scale/fault', 'in ounces');
    const ounces = await settled();
    expect(ounces).toMatchObject({ unit: 'oz', stable: true });
    expect(ounces.value * GRAMS_PER_OUNCE).toBeCloseTo(310.4, 2);
    await choose('/scale/fault', 'below nought');
    expect((await settled()).value).toBeLessThan(0);
    await choose('/scale/fault', 'unsteady');
    expect((await settled()).stable).toBe(false);
    await choose('/scale/fault', 'none');
  });

  it('unplugged says nothing at all', async () => {
    await choose('/scale/fault', 'unplugged');
    await expect(look()).rejects.toThrow();
    await choose('/scale/fault', 'none');
  });
});

describe('one truth behind all devices', () => {
  const { layout } = studyMoves(STUDY_DESIGN);
  const program = couponGcode(layout, { motion: STUDY_MOTION, fullScaleS: 1000, laserOn: 'M3' });

  const lie = (setup: object) => post('/scene/head', { at: 'head', setup, air: false, extraction: true });
  async function burnt(key: string): Promise<ControllerState> {
    await choose('/controller/pace', '20000');
    await lie(studySetup(key));
    await post('/controller/program', { name: key, gcode: program });
    for (;;) {
      const report = (await (await post('/controller/state', {})).json()) as ControllerState;
      if (report.state !== 'running') return report;
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
  }
  async function read(key: string) {
    await post('/scene/camera', { at: 'camera', kind: 'coupon', stage: 'scrubbed', setup: studySetup(key), program });
    const answer = await post('/camera/picture', {});
    return studyReading(Buffer.from(await answer.arrayBuffer()), layout);
  }

  it('what the controller burnt through a touched coat, the camera shows pale where it was touched', async () => {
    expect(await burnt('even')).toMatchObject({ state: 'done', cellsDone: { length: 42 } });
    const even = await read('even');
    await choose('/camera/scene', 'touched');
    await burnt('touched');
    const touched = await read('touched');
    await choose('/camera/scene', 'even');
    const lost = even.cells.filter(({ contrast }, i) => contrast! > 35 && touched.cells[i]!.contrast! < contrast! - 10);
    const held = even.cells.filter(({ contrast }, i) => contrast! > 35 && touched.cells[i]!.contrast! > 35);
    expect(lost.length).toBeGreaterThan(0);
    expect(held.length).toBeGreaterThan(lost.length);
  }, 60_000);

  it('a busy head refuses another program, one switched off and on knows of none, and a lost answer has begun', async () => {
    const state = async () => (await (await post('/controller/state', {})).json()) as ControllerState;
    await choose('/controller/pace', '1');
    await lie(studySetup('busy'));
    await post('/controller/program', { name: 'one', gcode: program });
    const other = await post('/controller/program', { name: 'two', gcode: program });
    expect([other.status, await other.json()]).toEqual([409, { detail: 'It runs a program.' }]);
    expect(await state()).toMatchObject({ program: 'one', state: 'running', air: false, extraction: true });
    await choose('/controller/power', 'off and on again');
    expect(await state()).toMatchObject({ program: '', state: 'idle' });
    await choose('/controller/fault', 'answer lost');
    await expect(post('/controller/program', { name: 'three', gcode: program })).rejects.toThrow();
    expect(await state()).toMatchObject({ program: 'three', state: 'running' });
    await post('/controller/stop', {});
    await choose('/controller/fault', 'none');
    const garbled = await post('/controller/program', { name: 'four', gcode: 'G2 X1' });
    expect([garbled.status, (await state()).program]).toEqual([409, 'three']);
  });

  it('a head that was left without its plug keeps silent, and its camera still looks at what lies there', async () => {
    await choose('/controller/fault', 'unplugged');
    await expect(post('/controller/state', {})).rejects.toThrow();
    await expect(post('/controller/stop', {})).rejects.toThrow();
    await choose('/controller/fault', 'air assist on');
    expect((await post('/controller/state', {})).status).toBe(200);
    await choose('/controller/fault', 'none');
    const part = { at: 'camera', kind: 'coat', batch: 't', widthMm: 40, heightMm: 30, ground: 'light' };
    await post('/scene/camera', part);
    const answer = await post('/camera/picture', {});
    const { width, data } = await decoded(Buffer.from(await answer.arrayBuffer()));
    expect(width).toBe(1600);
    const bench = [0, 1, 2].map((k) => (data[4 * 40 + k]! / 255) ** 2.2) as [number, number, number];
    expect(lightness(luminance(...bench))).toBeGreaterThan(40);
  }, 30_000);
});
