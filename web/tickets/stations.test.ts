// @vitest-environment happy-dom
import { flushPromises, type VueWrapper } from '@vue/test-utils';
import { decisive, makeFigure, PLAIN_SETTING } from '@unto/core';
import { emptyBody } from '@unto/contract';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Component } from 'vue';
import { useNow } from '../stores/now';
import { by, choose, item } from '../testing/shop';
import { mountOnTicket, NOTHING_DONE } from '../testing/ticket';
import CleanStation from '../runs/CleanStation.vue';
import CoatStation from '../coat/CoatStation.vue';
import JudgeStation from '../runs/JudgeStation.vue';
import MarkStation from '../marking/MarkStation.vue';

vi.mock('idb-keyval', () => import('../testing/memory-storage'));
afterEach(() => vi.unstubAllGlobals());

const id = (n: number) => `00000000-0000-4000-8000-00000000000${n}`;
const [TICKET_ID, METAL, GLASS, HEAD, LENS, COMPOUND, CAN, RUN] = [1, 2, 3, 4, 5, 6, 7, 8].map(id) as [
  string,
  string,
  string,
  string,
  string,
  string,
  string,
  string,
];

const ITEMS = [
  item('substrate', METAL!, {
    name: '304',
    family: 'stainless',
    layer: 'bare',
    thicknessMm: 1.2,
    conductivity: 0.0162,
    diffusivity: 4.05,
  }),
  item('substrate', GLASS!, {
    name: 'beaker',
    family: 'glass',
    layer: 'bare',
    thicknessMm: 2.5,
    conductivity: 0.0012,
    diffusivity: 0.65,
  }),
  item('machine', 'machine', {
    motion: 'gantry',
    topSpeedMmPerS: 600,
    accelerationMmPerS2: 5000,
    panelPower: '0-1000',
    panelSpeed: '%',
    dialTable: [],
  }),
  item('head', HEAD!, {
    machineId: 'machine',
    wavelengthClass: 'co2',
    ratedW: 55,
    firingThresholdPercent: 7,
    eyewear: 'the clear pair',
  }),
  item('lens', LENS!, { headId: HEAD, spotXMm: 0.165, spotYMm: 0.165, depthOfFocusMm: 0.53, depthGrowth: 0.05 }),
  item('compound', COMPOUND!, {
    ...emptyBody('compound'),
    application: 'aerosol',
    name: 'Corvid Film',
    handling: 'loose powder',
    dryFilmMinUm: 8,
    dryFilmMaxUm: 12,
    coats: 1,
    shakeS: 75,
    dryS: 240,
    volumeSolids: 0.3,
    massSolids: 0.12,
    dryDensity: 3.6,
    thinnerRatio: 0,
    thinnerDensityRatio: 0.9,
    distanceMinMm: 150,
    distanceMaxMm: 250,
    sizes: [{ label: 'can', netG: 420, priceMinor: 6800 }],
  }),
  item('container', CAN!, { name: 'lot K7', compoundId: COMPOUND, tareG: 96, netG: 420, priceMinor: 6800 }),
];
const TICKET = {
  id: TICKET_ID,
  number: 7,
  version: 1,
  title: 'Tags',
  pieces: 12,
  markWidthMm: 38,
  markHeightMm: 22,
  coatMarginMm: 3,
  substrateId: METAL,
  headId: HEAD,
  lensId: LENS,
  compoundId: COMPOUND,
  choiceReason: '',
  aim: { tone: 'dark on light', strength: 'clear', work: 'fill' },
  foodUse: false,
};
const RECIPE = {
  id: id(9),
  number: 1,
  kind: 'quickest',
  powerPercent: 92,
  speedMmPerS: 168,
  intervalMm: 0.06,
  ...PLAIN_SETTING,
  directions: 'two-way',
  air: 'off',
  focusOffsetMm: 0.2,
  because: [],
  secondsPerPiece: 30,
  grade: 'proved',
  worst: null,
  fit: null,
};
const run = (change: object = {}) => ({
  id: RUN,
  pieces: 6,
  at: '2026-03-01T09:00:00.000Z',
  grade: 'proved',
  power: { value: 92, unit: '%' },
  speed: { value: 168, unit: 'mm/s' },
  interval: { value: 0.06, unit: 'mm' },
  powerPercent: 92,
  speedMmPerS: 168,
  intervalMm: 0.06,
  minutes: 3,
  dose: null,
  correctedById: null,
  cleaning: null,
  judgement: null,
  ...change,
});

/** Coated and with a recipe, nothing ticked. */
const READY = { recipes: [RECIPE], progress: { ...NOTHING_DONE, coatedPieces: 12, recipeNumber: 1 } };

function open(station: Component, change: { ticket?: object; page?: object } = {}) {
  return mountOnTicket(station, { ticket: { ...TICKET, ...change.ticket }, page: change.page, items: ITEMS });
}
const value = (page: VueWrapper, testId: string) => (page.find(by(testId)).element as HTMLInputElement).value;
const type = async (page: VueWrapper, testId: string, text: string) => {
  await page.find(by(testId)).setValue(text);
  await page.find(by(testId)).trigger('blur');
};

describe('Mark', () => {
  it('fills the recipe in as the panel shows it, for the pieces that are left', async () => {
    const { page } = await open(MarkStation, {
      page: { recipes: [RECIPE], runs: [run({ pieces: 4 })], progress: { ...NOTHING_DONE, markedPieces: 4 } },
    });
    await page.find(by('way-log')).trigger('click');
    expect(value(page, 'power')).toBe('920');
    expect(value(page, 'speed')).toBe('28');
    expect(value(page, 'interval')).toBe('0.06');
    expect(value(page, 'run-pieces')).toBe('8');
    // 8 pieces at half a minute each are planned; what it took is not answered for anybody.
    expect(page.text()).toMatch(/Planned: 4:00\smin/);
    expect([value(page, 'minutes'), page.find(by('air')).text()]).toEqual(['', 'Choose']);
  });

  it('logs the run as entered, on its recipe', async () => {
    const { page, server, router } = await open(MarkStation, { page: READY });
    await page.find(by('way-log')).trigger('click');
    expect(page.find(by('open-stations')).text()).toMatch(/prepare: 0 of 4 checked/);
    await choose(page, 'air', 'off');
    await type(page, 'minutes', '6,5');
    await type(page, 'run-reason', 'checked by Ines');
    await page.find('form#run').trigger('submit');
    await flushPromises();
    expect(server.posts()[0]).toMatchObject({
      path: '/api/runs',
      body: {
        ticketId: TICKET_ID,
        recipeId: RECIPE.id,
        pieces: 12,
        power: { value: 920, unit: '0-1000' },
        speed: { value: 28, unit: '%' },
        minutes: 6.5,
        focusOffsetMm: 0.2,
        directions: 'two-way',
        air: 'off',
        reason: 'checked by Ines',
      },
    });
    expect(router.currentRoute.value.path).toBe(`/tickets/${TICKET_ID}/clean`);
  });

  it('says that a setting without a recipe rests on nothing, and refuses an empty one at its fields', async () => {
    const { page, server } = await open(MarkStation);
    await page.find(by('way-log')).trigger('click');
    expect(page.text()).toMatch(/rests on nothing yet/);
    await page.find('form#run').trigger('submit');
    await flushPromises();
    expect(page.text()).toMatch(/Power must be a number/);
    expect(server.posts()).toEqual([]);
  });

  it('does not log a run while the coat dries', async () => {
    const clock = {
      id: id(9),
      kind: 'dry',
      label: 'tray',
      startedAt: new Date().toISOString(),
      minimumS: 240,
      endedAt: null,
      outcome: null,
    };
    const dryingUntil = new Date(Date.now() + 60_000).toISOString();
    const page12 = { ...READY, timers: [clock], progress: { ...READY.progress, dryingUntil } };
    const { page } = await open(MarkStation, { page: page12 });
    await page.find(by('way-log')).trigger('click');
    expect(page.text()).toMatch(/it still dries. Never fire a wet coat/);
    expect(page.find(by('log-run')).attributes('disabled')).toBeDefined();
  });

  it('puts the refusal of the server at its field', async () => {
    const { page, server } = await open(MarkStation, { page: READY });
    await page.find(by('way-log')).trigger('click');
    server.refusals['POST /api/runs'] = {
      type: 'invalid-input',
      title: '',
      status: 422,
      detail: 'no',
      faults: [{ path: 'speed.value', message: '168 mm/s is faster than the head runs.' }],
    };
    await choose(page, 'air', 'off');
    await type(page, 'minutes', '6,5');
    await type(page, 'run-reason', 'checked by Ines');
    await page.find('form#run').trigger('submit');
    await flushPromises();
    expect(page.text()).toMatch(/faster than the head runs/);
  });
});

describe('Clean', () => {
  it('logs how the oldest uncleaned run was cleaned', async () => {
    const { page, server } = await open(CleanStation, { page: { runs: [run()] } });
    await page.find('form#clean').trigger('submit');
    await flushPromises();
    expect(page.text()).toMatch(/Method is missing[\s\S]*Residue is missing/);
    await choose(page, 'method', 'water and sponge');
    await choose(page, 'residue', 'none');
    await type(page, 'clean-minutes', '2');
    await page.find('form#clean').trigger('submit');
    await flushPromises();
    expect(server.posts()[0]).toMatchObject({
      path: `/api/runs/${RUN}/cleanings`,
      body: { method: 'water and sponge', minutes: 2, residue: 'none' },
    });
  });

  it('refuses minutes that are none', async () => {
    const { page, server } = await open(CleanStation, { page: { runs: [run()] } });
    await page.find('form#clean').trigger('submit');
    await flushPromises();
    expect(page.text()).toMatch(/Minutes must be a number/);
    expect(server.posts()).toEqual([]);
  });

  it('tells glass to cool first', async () => {
    const { page } = await open(CleanStation, { ticket: { substrateId: GLASS }, page: { runs: [run()] } });
    expect(page.text()).toMatch(/cool/i);
  });
});

describe('Judge', () => {
  it('keeps contrast, evenness, faults and tests, and counts the good pieces', async () => {
    const { page, server } = await open(JudgeStation, {
      page: { runs: [run({ cleaning: { method: 'water and sponge' } })] },
    });
    // One press invents nothing: no scrub, no contrast, no count.
    await page.find('form#judge').trigger('submit');
    await flushPromises();
    expect(server.posts()).toEqual([]);
    expect(page.text()).toMatch(/Contrast is missing[\s\S]*Evenness is missing[\s\S]*must be a number/);
    expect(page.find(by('test-0')).exists()).toBe(false);
    await choose(page, 'contrast', 4);
    await choose(page, 'evenness', 'even');
    await type(page, 'good', '5');
    await page.find(by('add-test')).trigger('click');
    await choose(page, 'test-0', 'abrasive pad');
    await choose(page, 'result-0', 'no change');
    await page.find(by('fault-grainy')).setValue(true);
    await page.find('form#judge').trigger('submit');
    await flushPromises();
    expect(server.posts()[0]).toMatchObject({
      path: `/api/runs/${RUN}/judgements`,
      body: {
        contrastStep: 4,
        evenness: 'even',
        piecesGood: 5,
        faults: ['grainy'],
        tests: [{ test: 'abrasive pad', result: 'no change' }],
      },
    });
  });

  it('has nothing to judge before anything was run', async () => {
    const { page } = await open(JudgeStation);
    expect(page.find(by('keep-judgement')).exists()).toBe(false);
  });
});

describe('Coat', () => {
  it('plans films, mass and price, each with its unit and grade', async () => {
    const { page } = await open(CoatStation);
    expect(page.find(by('tile-dry')).text()).toMatch(/10\.0µm[\s\S]*8\.00–12\.0[\s\S]*Stated/);
    expect(page.find(by('tile-wet')).text()).toMatch(/33\.3µm/);
    // 12 pieces and 4 spares (nothing made before): 44 × 28 mm × 16 × 10 µm × 3.6 g/cm³ ÷ (0.35 × 0.12) = 16.9 g
    expect(page.find(by('tile-mass')).text()).toMatch(/16\.9g[\s\S]*Usual/);
    expect(page.find(by('tile-price')).text()).toMatch(/CR/);
  });

  it('sends both weighings as entered, and shows their refusal at the field', async () => {
    const { page, server } = await open(CoatStation);
    await type(page, 'before', '312,4');
    await type(page, 'after', '301.6');
    server.refusals[`POST /api/tickets/${TICKET_ID}/weighings`] = {
      type: 'invalid-input',
      title: '',
      status: 422,
      detail: 'no',
      faults: [{ path: 'after.value', message: 'The container weighs more after spraying.' }],
    };
    await page.find(by('keep-weighing')).trigger('submit');
    await flushPromises();
    expect(server.posts()[0]!.body).toMatchObject({
      containerId: CAN,
      pieces: 12,
      before: { value: 312.4, unit: 'g' },
      after: { value: 301.6, unit: 'g' },
    });
    expect(page.text()).toMatch(/weighs more after spraying/);
    expect(value(page, 'before')).toBe('312,4');
  });

  it.each([
    [6, /Too thin: it will be pale and patchy/],
    [9.4, /In the band/],
    [15, /Too thick: the heat will not reach the part/],
  ])('judges a film of %d µm', async (um, verdict) => {
    const film = makeFigure({
      formula: 'filmFromWeighing',
      value: um,
      unit: 'µm',
      inputs: [decisive('weighing', 'measured')],
    });
    const weighing = {
      id: id(9),
      pieces: 12,
      containerId: CAN,
      compoundId: COMPOUND,
      beforeG: 312.4,
      afterG: 301.6,
      film,
      transfer: null,
    };
    const { page } = await open(CoatStation, { page: { weighings: [weighing] } });
    expect(page.find(by('film-verdict')).text()).toMatch(verdict);
  });

  it('starts the clock with the compound’s own time, and opens its gate only after it', async () => {
    const { page, server } = await open(CoatStation);
    await page.find(by('start-drying')).trigger('click');
    await flushPromises();
    expect(server.posts()[0]).toMatchObject({
      path: `/api/tickets/${TICKET_ID}/timers`,
      body: { kind: 'dry', minimumS: 240 },
    });
    const startedAt = '2026-03-01T10:00:00.000Z';
    const clock = { id: id(9), kind: 'dry', label: 'tray', startedAt, minimumS: 240, endedAt: null, outcome: null };
    const second = await open(CoatStation, { page: { timers: [clock] } });
    useNow().now = Date.parse('2026-03-01T10:03:00Z');
    await flushPromises();
    expect(second.page.find(by('gloss-gone')).attributes('disabled')).toBeDefined();
    useNow().now = Date.parse('2026-03-01T10:04:01Z');
    await flushPromises();
    await second.page.find(by('gloss-gone')).trigger('click');
    await flushPromises();
    expect(second.server.posts()[0]).toMatchObject({
      method: 'PUT',
      path: `/api/timers/${id(9)}/end`,
      body: { outcome: 'passed' },
    });
  });
});
