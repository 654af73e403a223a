// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { PLAIN_SETTING } from '@unto/core';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { by, choose, item, stock } from '../testing/shop';
import { mountOnTicket } from '../testing/ticket';
import BurnPanel from './BurnPanel.vue';
import StepTestPanel from './StepTestPanel.vue';
import { useShop } from '../stores/shop';

vi.mock('idb-keyval', () => import('../testing/memory-storage'));

const TICKET = {
  ...{ id: 't', number: 7, title: 'Setting circle', pieces: 1, markWidthMm: 180, markHeightMm: 12, coatMarginMm: 3 },
  ...{ substrateId: 'metal', headId: 'head', lensId: 'lens', compoundId: 'film' },
};
const ITEMS = [
  item('machine', 'machine', { motion: 'gantry', topSpeedMmPerS: 600, accelerationMmPerS2: 5000, fullScaleS: 1000 }),
  item('head', 'head', { machineId: 'machine', ratedW: 55, firingThresholdPercent: 7, wavelengthClass: 'co2' }),
  item('lens', 'lens', { headId: 'head', spotXMm: 0.165, spotYMm: 0.165, depthOfFocusMm: 0.5, depthGrowth: 0.05 }),
  item('substrate', 'metal', { family: 'brass', ground: 'light', conductivity: 0.121, diffusivity: 37.6 }),
];
const step = (speedMmPerS: number, outcome: string) => ({
  ...{
    id: `s${speedMmPerS}`,
    powerPercent: 90,
    powerW: 45,
    speedMmPerS,
    intervalMm: 0.06,
    ...PLAIN_SETTING,
    air: 'off',
    outcome,
    note: 'in the hub',
  },
  ...{ revisions: {}, at: '2026-03-02T09:00:00.000Z', by: 'ines' },
});
const open = (testSteps: object[]) =>
  mountOnTicket(StepTestPanel, { ticket: TICKET, items: ITEMS, page: { testSteps } });
beforeEach(() => localStorage.clear());

describe('the step test', () => {
  it('proposes the weakest cell first, and sends what was seen of it', async () => {
    const { page, server } = await open([]);
    expect(page.find(by('step-test-advice')).text()).toMatch(/weakest first/);
    expect(page.find<HTMLInputElement>(by('step-test-speed')).element.value).toBe('480');
    await page.find(by('step-test-place')).setValue('inside the hub');
    await choose(page, 'air', 'off');
    await page.find(by('step-test-lost')).trigger('click');
    await flushPromises();
    expect(server.posts()[0]).toMatchObject({
      path: '/api/tickets/t/test-steps',
      body: { powerPercent: 90, speedMmPerS: 480, intervalMm: 0.06, outcome: 'lost', note: 'inside the hub' },
    });
  });

  it('goes nearer once something stays, and ends at what holds with that setting as the recipe', async () => {
    const near = await open([step(480, 'lost'), step(300, 'faint')]);
    expect(near.page.find(by('step-test-advice')).text()).toMatch(/closer now, about 13 %/);
    const { page, server } = await open([step(480, 'lost'), step(240, 'holds')]);
    expect(page.find(by('step-test-lost')).exists()).toBe(false);
    expect(page.find(by('step-test-advice')).text()).toMatch(/This one holds and nothing weaker did/);
    await page.find(by('step-test-accept')).trigger('click');
    await flushPromises();
    expect(server.posts()[0]).toMatchObject({ path: '/api/recipes', body: { kind: 'step test', speedMmPerS: 240 } });
  });
});

describe('a coupon being burnt', () => {
  const COUPON = { id: 'c', version: 1, burn: null, design: { code: 'K-031' } };
  const burn = (state: string, change: object = {}) => ({
    ...COUPON,
    burn: {
      ...{ id: 'b', state, elapsedS: 30, totalS: 120, cellsDone: [0, 1], cellsCut: [], cell: 2, message: '' },
      ...{
        asked: null,
        fault: '',
        seenAt: '2026-03-02T09:00:30.000Z',
        startedAt: '2026-03-02T09:00:00.000Z',
        endedAt: null,
        by: 'ines',
        ...change,
      },
    },
  });
  const panel = async (coupon: object, gantry = true) => {
    const props = { coupon, gantry, cells: 56, runTimeS: 380 };
    const mounted = await mountOnTicket(BurnPanel, { ticket: TICKET, items: ITEMS, props });
    stock({ devices: { scale: false, camera: false, controller: true }, items: useShop().items });
    await flushPromises();
    return mounted;
  };

  it('is sent with M3 or M4 explained, or burnt by hand where nothing takes the program', async () => {
    const { page, server } = await panel(COUPON);
    expect(page.text()).toMatch(/stays as set suits small cells[\s\S]*spares the corners/);
    server.answers['POST /api/coupons/c/burns'] = burn('running');
    await page.find(by('send-burn')).trigger('click');
    await flushPromises();
    // How air and extraction stand is asked first, of whoever stands there.
    expect(page.text()).toMatch(/Say how air assist and extraction stand while it fires/);
    expect(server.posts()).toEqual([]);
    await page.find(by('fire-air-off')).trigger('click');
    await page.find(by('fire-extraction-on')).trigger('click');
    await page.find(by('send-burn')).trigger('click');
    await flushPromises();
    expect(server.posts()[0]).toMatchObject({
      path: '/api/coupons/c/burns',
      body: { version: 1, laserOn: 'M3', air: 'off', extraction: 'on' },
    });
    const galvo = await panel(COUPON, false);
    expect(galvo.page.find(by('send-burn')).exists()).toBe(false);
    expect(galvo.page.text()).toMatch(/takes the SVG or DXF/);
  });

  it.each([
    ['running', /Burning cell 3[\s\S]*2 of 56 cells/, ['pause-burn', 'stop-burn']],
    ['paused', /Paused, beam off/, ['resume-burn', 'stop-burn']],
    ['waiting', /Waits for you/, ['resume-burn', 'stop-burn']],
    ['queued', /Being sent/, ['stop-burn']],
    ['silent', /does not answer[\s\S]*own switch/, ['burn-seen', 'settle-partly', 'settle-whole']],
    ['unknown', /look at the machine[\s\S]*count the cells/, ['burn-seen', 'settle-partly', 'settle-whole']],
    ['stopped', /2 cells are burnt whole/, ['resume-rest', 'settle-partly']],
  ] as const)('and %s says so, with what can be done', async (state, words, buttons) => {
    const { page } = await panel(burn(state));
    expect(page.text()).toMatch(words);
    for (const id of buttons) expect(page.find(by(id)).exists(), id).toBe(true);
  });

  it('that was not sent says why, and can be sent again; what was found of an unknown one is sent as it was counted', async () => {
    const unsent = await panel(burn('not sent', { fault: 'The head is busy.' }));
    expect(unsent.page.find(by('burn-fault')).text()).toBe('The head is busy.');
    expect(unsent.page.find(by('send-burn')).exists()).toBe(true);
    const { page, server } = await panel(burn('unknown'));
    server.answers['PUT /api/burns/b/settle'] = burn('partly');
    await page.find(by('burn-seen')).setValue('7');
    await page.find(by('settle-partly')).trigger('click');
    await flushPromises();
    expect(server.heard.findLast(({ method }) => method === 'PUT')).toMatchObject({ body: { as: 'partly', seen: 7 } });
  });

  it('refused by the head keeps its words in view', async () => {
    const { page, server } = await panel(burn('stopped'));
    server.refusals['PUT /api/burns/b/settle'] = {
      type: 'wrong-stage',
      status: 409,
      detail: 'No cell was burnt whole.',
    };
    await page.find(by('settle-partly')).trigger('click');
    await flushPromises();
    expect(page.find(by('burn-fault')).text()).toMatch(/No cell was burnt whole/);
  });
});
