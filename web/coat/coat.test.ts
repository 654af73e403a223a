// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { decisive, makeFigure, type Figure } from '@unto/core';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import CoatStation from './CoatStation.vue';
import { useShop } from '../stores/shop';
import { TIMER_NAMES, useTimers } from '../timers/timers';
import { useNotices } from '../stores/notices';
import { useNow } from '../stores/now';
import { by, fakeServer, item, mountInShop, stock, inCoreUnits } from '../testing/shop';
import { mountOnTicket, NOTHING_DONE } from '../testing/ticket';
import RunningTimers from '../timers/RunningTimers.vue';
import { changeInWords } from './words';

const TICKET = {
  id: 't1',
  number: 7,
  title: 'Beakers',
  pieces: 12,
  markWidthMm: 30,
  markHeightMm: 70,
  coatMarginMm: 3,
  substrateId: 'glass',
  headId: 'head',
  lensId: 'lens',
  compoundId: 'jar',
  choiceReason: 'named for glass',
};
const COMPOUND = {
  form: 'water-based glass and ceramic',
  handling: 'rubs off',
  dryFilmMinUm: 18,
  dryFilmMaxUm: 28,
  coats: 1,
  distanceMinMm: 150,
  distanceMaxMm: 250,
  shakeS: 60,
  dryS: 420,
  shelfLifeDays: 7,
  volumeSolids: 0.3,
  massSolids: 0.42,
  dryDensity: 2.4,
  thinnerRatio: 0,
  thinnerDensityRatio: 1,
  potLifeHours: null,
  thinner: '',
  sizes: [{ label: '500 mL', netG: 600, priceMinor: 5200 }],
};
const ITEMS = (compound: object = {}) => [
  item('substrate', 'glass', {
    family: 'glass',
    layer: 'bare',
    thicknessMm: 2,
    conductivity: 0.0011,
    diffusivity: 0.6,
  }),
  item('machine', 'machine', { motion: 'gantry' }),
  item('head', 'head', { machineId: 'machine', wavelengthClass: 'co2', eyewear: 'the clear pair' }),
  item('lens', 'lens', { headId: 'head', spotXMm: 0.165, spotYMm: 0.165, depthOfFocusMm: 0.53, depthGrowth: 0.05 }),
  item('compound', 'jar', { ...COMPOUND, ...compound }),
  item('container', 'jar-l3', {
    compoundId: 'jar',
    tareG: 80,
    netG: 600,
    openedOn: null,
    expiresOn: null,
    priceMinor: 5200,
  }),
];
const film = (value: number, low: number, high: number): Figure =>
  makeFigure({
    formula: 'filmFromWeighing',
    value,
    unit: 'µm',
    interval: { low, high, level: 0.9 },
    inputs: [decisive('x', 'measured')],
  });
const weighing = (change: object = {}) => ({
  ...{ id: 'w1', ticketId: 't1', containerId: 'jar-l3', compoundId: 'jar', pieces: 4, beforeG: 600, afterG: 597 },
  ...{ film: film(21, 20, 22), transfer: null, correctsId: null, strokes: 6, afterPotLife: false },
  ...{ at: '2026-03-02T08:00:00.000Z', by: 'ines' },
  ...change,
});
const station = (page: object = {}, compound: object = {}, answers: Record<string, unknown> = {}) =>
  mountOnTicket(CoatStation, { ticket: TICKET, page, items: ITEMS(compound), answers });
const text = (page: { find(selector: string): { text(): string } }, id: string) =>
  page.find(by(id)).text().replaceAll(/\s+/g, ' ');

beforeEach(() =>
  vi.useFakeTimers({
    now: new Date('2026-03-02T09:00:00Z'),
    toFake: ['Date', 'setInterval', 'clearInterval', 'performance'],
  }),
);
afterEach(() => vi.useRealTimers());

describe('the plan of a coat', () => {
  it('says strokes, what to set out and how the coat is handled', async () => {
    const { page } = await station({
      weighings: [weighing()],
      containersLeft: [{ containerId: 'jar-l3', leftG: 517, weighed: true }],
    });
    await page.find(by('coat-plan')).trigger('click');
    expect(text(page, 'coat-takes')).toMatch(/1 coat by aerosol of about \d+ strokes? from 150–250/);
    expect(text(page, 'coat-takes')).toMatch(/jar-l3: [\d.]+ g of 517 g/);
    expect(text(page, 'coat-rules')).toMatch(/Lift by bare places only/);
    expect(page.find(by('coat-buy')).exists()).toBe(false);
  });

  it('buys what is short and measures out a mix with its clock', async () => {
    const { page, server } = await station(
      { containersLeft: [{ containerId: 'jar-l3', leftG: 0.5, weighed: true }] },
      { thinnerRatio: 1, thinnerDensityRatio: 0.35, potLifeHours: 4, thinner: 'denatured alcohol' },
    );
    await page.find(by('coat-plan')).trigger('click');
    expect(text(page, 'coat-buy')).toMatch(/short\. Buy 1 × 500 mL, 52\.00 CR/);
    expect(text(page, 'coat-takes')).toMatch(/mL compound \+ \d+ mL denatured alcohol/);
    await page.find(by('start-mix')).trigger('click');
    expect(server.posts().at(-1)!.body).toMatchObject({ kind: 'pot', minimumS: 14_400 });
  });

  it('tells powder from film', async () => {
    const { page } = await station({}, { handling: 'loose powder' });
    await page.find(by('coat-plan')).trigger('click');
    expect(text(page, 'coat-rules')).toMatch(/Gloves and mask.*Air assist off.*paler from piece to piece/);
  });
});

describe('a coat on several trays', () => {
  const clock = (tray: number) => ({
    ...{ id: `d${tray}`, kind: 'dry', label: `tray ${tray}`, minimumS: 420, tray, pieces: 6, ticketId: 't1' },
    ...{ ticketTitle: 'Beakers', startedAt: '2026-03-02T08:59:00.000Z', endedAt: null, outcome: null },
  });

  it('has a clock a tray, and a weighing says which tray it is of', async () => {
    const { page, server } = await station({ timers: [clock(1)] });
    expect(page.find(by('weigh-tray')).exists()).toBe(false);
    await page.find(by('weigh-pieces')).setValue('6');
    await page.find(by('next-tray')).trigger('click');
    await flushPromises();
    expect(server.posts().at(-1)!.body).toMatchObject({
      ...{ kind: 'dry', label: 'tray 2, coat of 6 pieces', tray: 2, pieces: 6, minimumS: 420 },
    });
  });

  it('gives a tray that is free its number again, asks which tray was weighed, and lets Place be prepared meanwhile', async () => {
    const { page, server } = await station({ timers: [clock(2), clock(3)] });
    expect(page.find(by('weigh-tray')).exists()).toBe(true);
    expect(page.find(by('to-place')).text()).toBe('Prepare Place meanwhile');
    expect(page.find(by('tray-labels')).attributes('href')).toBe('/api/tickets/t1/trays.pdf');
    await page.find(by('next-tray')).trigger('click');
    await flushPromises();
    expect(server.posts().at(-1)!.body).toMatchObject({ tray: 1 });
  });

  it('tells of the room only once the record knows enough', async () => {
    const coat = (i: number) => ({
      ...{ id: `s${i}`, at: '2026-02-02T08:00:00.000Z', by: 'ines', ticketId: 't1', ticketTitle: 'Beakers', pieces: 4 },
      ...{ film: film(20, 18, 22), transferValue: 0.4 * Math.exp(-0.02 * i), massAppliedG: 4, strokes: null },
      ...{ roomC: 14 + i, roomHumidity: null },
    });
    const path = '/api/coat-trend?compoundId=jar&limit=500';
    const trend = async (count: number) => {
      const records = Array.from({ length: count }, (_, i) => coat(i));
      const answers = { [path]: { records, next: null } };
      const { page } = await station({}, {}, answers);
      await page.find(by('coat-trend')).trigger('click');
      await flushPromises();
      return text(page, 'room-effect');
    };
    expect(await trend(3)).toMatch(/nothing can be said of 3 coats; 8 with parts weighed/);
    expect(await trend(9)).toMatch(/−2\.0 % of the solids on the part for every °C more .*seen, not explained/);
  });
});

describe('what is known of a coat', () => {
  const reading = (change: object) => ({
    ...{
      id: 'r',
      ticketId: 't1',
      compoundId: 'jar',
      weighingId: 'w1',
      note: '',
      at: '2026-03-02T08:10:00.000Z',
      by: 'ines',
    },
    ...{ findings: [] },
    ...change,
  });

  it('weighs readings together and names those that cannot both be right', async () => {
    const { page } = await station({
      weighings: [weighing()],
      coatReadings: [
        reading({ kind: 'comb', entries: { wettedUm: 150, dryToothUm: 200 }, film: film(52, 45, 60) }),
        reading({ id: 'l', kind: 'inspection', entries: {}, film: film(20, 15, 30), findings: ['runs'] }),
      ],
    });
    expect(text(page, 'coat-contradiction')).toBe('Weighing and comb cannot both be right: read one of them again.');
    expect(text(page, 'coat-findings')).toMatch(/But it ran/);
  });

  it('tells the pieces left in the can as the shelf does, whatever this weighing alone says', async () => {
    const pieces = makeFigure({
      formula: 'remainingPieces',
      value: 31,
      unit: 'pieces',
      inputs: [decisive('newest weighing', 'measured')],
    });
    const left = [{ containerId: 'jar-l3', leftG: 497, weighed: true, pieces }];
    const { page } = await station({ weighings: [weighing()], containersLeft: left });
    expect(text(page, 'left-in-can')).toMatch(/: 31.* pieces like these left at the rate so far/);
  });

  it('counts the coated pieces as the server does: what was corrected or rinsed off is not coated', async () => {
    const progress = { ...NOTHING_DONE, coatedPieces: TICKET.pieces - 5 };
    const { page } = await station({ weighings: [weighing({ pieces: 40 }), weighing({ pieces: 40 })], progress });
    expect((page.find(by('weigh-pieces')).element as HTMLInputElement).value).toBe('5');
  });

  it('says what would bring it into the band', async () => {
    const { page } = await station({ weighings: [weighing({ film: film(35, 33, 37), strokes: 6 })] });
    expect(text(page, 'film-verdict')).toMatch(/Too thick: the heat will not reach the part/);
    expect(text(page, 'coat-change')).toBe('Next time: Lay 34 % less: 4 strokes instead of 6.');
    expect(changeInWords({ factor: 1.5, strokes: null, distanceMm: null }, inCoreUnits)).toBe(
      'Lay 50 % more, by a slower hand.',
    );
  });

  it('keeps a comb only when its teeth make sense, and the looks of glass with a lamp', async () => {
    const { page, server } = await station({ weighings: [weighing()] });
    await page.find(by('coat-read')).trigger('click');
    await page.find(by('comb-wet')).setValue('80');
    await page.find(by('comb-dry')).setValue('70');
    expect(text(page, 'comb-fault')).toMatch(/higher one/);
    expect(page.find(by('keep-comb')).attributes('disabled')).toBeDefined();
    await page.find(by('comb-dry')).setValue('90');
    expect(text(page, 'comb-film')).toMatch(/24\.0–27\.0\sµm dry/);
    await page.find(by('keep-comb')).trigger('click');
    expect(server.posts().at(-1)).toMatchObject({
      path: '/api/tickets/t1/coat-readings',
      body: { kind: 'comb', weighingId: 'w1', entries: { wettedUm: 80, dryToothUm: 90 } },
    });
    await flushPromises();
    await page.find(by('keep-looks')).trigger('click');
    expect(server.posts().at(-1)!.body.entries).toMatchObject({ showing: 'none', lamp: 'no light' });
  });
});

describe('the scale at the bench', () => {
  it('is read into the fields; when it gives nothing its words stand there and what was typed stays', async () => {
    const job = (weight: object | null, fault = '') => ({
      ...{ id: 'j', kind: 'weigh', state: fault ? 'failed' : 'done', fault, weight, picture: null },
    });
    const answers: Record<string, unknown> = {
      '/api/devices/scale/weigh': { ...job(null), state: 'waiting' },
      '/api/devices/jobs/weigh/j': job({ value: 612.4, unit: 'g', at: '' }),
    };
    const { page, server } = await station({}, {}, answers);
    stock({ devices: { scale: true, camera: false, controller: false }, items: useShop().items });
    await flushPromises();
    await page.find(by('scale-before')).trigger('click');
    const before = () => (page.find(by('before')).element as HTMLInputElement).value;
    await vi.waitFor(() => expect(before()).toBe('612.4'));
    await page.find(by('after')).setValue('609.1');
    server.answers['/api/devices/scale/weigh'] = job(null, 'The scale does not settle.');
    await page.find(by('scale-after')).trigger('click');
    await flushPromises();
    expect(text(page, 'scale-says')).toBe('The scale does not settle.');
    expect((page.find(by('after')).element as HTMLInputElement).value).toBe('609.1');
    expect(localStorage.getItem('unto-draft-weighing-t1')).toContain('612.4');
  });
});

describe('stored coats', () => {
  const stored = (change: object = {}) => ({
    ...{
      id: 's1',
      ticketId: 't1',
      ticketTitle: 'Beakers',
      compoundId: 'jar',
      compoundName: 'jar',
      handling: 'rubs off',
    },
    ...{
      pieces: 4,
      place: 'rack 2',
      note: '',
      storedAt: '2026-03-01T09:00:00.000Z',
      keepUntil: '2026-03-08T09:00:00.000Z',
    },
    ...{ state: 'good', by: 'ines', endedAt: null, outcome: null, endReason: '', endedBy: null },
    ...change,
  });
  const open = async (page: object) => {
    const mounted = await station(page);
    await mounted.page.find(by('coat-store')).trigger('click');
    return mounted;
  };

  it('are not stored wet, and carry their rule', async () => {
    const dry = {
      id: 'c',
      ticketId: 't1',
      ticketTitle: 'B',
      kind: 'dry',
      label: 'x',
      minimumS: 420,
      startedAt: '2026-03-02T08:59:00.000Z',
      endedAt: null,
      outcome: null,
    };
    const { page } = await open({ timers: [dry] });
    expect(page.find(by('store-coat')).attributes('disabled')).toBeDefined();
    expect(page.text()).toMatch(/never stacked[\s\S]*keeps 7 days/);
  });

  it('are taken up after a look; past their date only with a reason', async () => {
    const { page, server } = await open({
      storedCoats: [
        stored({ state: 'past' }),
        stored({ id: 's0', endedAt: '2026-02-01T09:00:00.000Z', outcome: 'rinsed off', endedBy: 'ines' }),
      ],
    });
    expect(text(page, 'stored')).toMatch(/4 pieces, rack 2: past its date, 8 Mar 2026/);
    expect(page.text()).toMatch(/rinsed off .* by Ines Varga/);
    await page.find(by('stored-dry')).setValue(true);
    await page.find(by('stored-untouched')).setValue(true);
    await page.find(by('stored-reason')).setValue('dry box');
    await page.find(by('take-up')).trigger('click');
    await flushPromises();
    expect(server.posts().at(-1)).toMatchObject({
      method: 'PUT',
      path: '/api/stored-coats/s1/end',
      body: { outcome: 'taken up', dry: true, untouched: true, reason: 'dry box' },
    });
  });
});

describe('running clocks', () => {
  const timer = (change: object = {}) => ({
    ...{ id: 'c1', ticketId: 't1', ticketTitle: 'Beakers', kind: 'dry', label: 'tray 1', minimumS: 240 },
    ...{ startedAt: '2026-03-02T08:57:00.000Z', endedAt: null, outcome: null },
    ...change,
  });

  it('stand in the title, tell once when they come due, and only then', async () => {
    fakeServer({ '/api/timers': [timer(), timer({ id: 'c2', kind: 'pot', minimumS: 30, label: 'mix' })] });
    const { page } = await mountInShop(RunningTimers);
    const timers = useTimers();
    useNow().start();
    timers.start();
    await flushPromises();
    expect(page.text()).toMatch(new RegExp(`${TIMER_NAMES.dry}: tray 1`));
    // The mix was due before this page knew of it: the title says so, no alarm.
    expect(timers.title).toBe('Time is up');
    expect(useNotices().notice).toBeNull();
    await vi.advanceTimersByTimeAsync(61_000);
    expect(useNotices().notice?.text).toBe('Look for gloss: tray 1, Beakers');
    useNotices().dismiss();
    await vi.advanceTimersByTimeAsync(5000);
    expect(useNotices().notice).toBeNull();
  });

  it('keep the sound that was asked for, and say when the browser shows no notifications', async () => {
    fakeServer({ '/api/timers': [] });
    const { page } = await mountInShop(RunningTimers);
    useTimers().start();
    await page.find(by('timer-sound')).trigger('click');
    expect(page.find(by('timer-sound')).attributes('aria-pressed')).toBe('true');
    await flushPromises();
    expect(JSON.parse(localStorage.getItem('unto-alerts')!)).toMatchObject({ sound: true });
    await page.find(by('timer-notify')).trigger('click');
    await flushPromises();
    expect(useNotices().notice?.text).toMatch(/shows no notifications/);
  });
});
