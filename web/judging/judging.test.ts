// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import JudgeStation from '../runs/JudgeStation.vue';
import CleaningAdvice from '../runs/CleaningAdvice.vue';
import { by, choose, item } from '../testing/shop';
import { mountOnTicket } from '../testing/ticket';
import DurabilityPanel from './DurabilityPanel.vue';
import LastingChart from './LastingChart.vue';
import VerdictPanel from './VerdictPanel.vue';

vi.mock('idb-keyval', () => import('../testing/memory-storage'));
beforeEach(() => localStorage.clear());
afterEach(() => vi.unstubAllGlobals());

const id = (n: number) => `00000000-0000-4000-8000-00000000000${n}`;
const TICKET = {
  ...{ id: id(1), number: 7, version: 1, title: 'Tags', pieces: 6, markWidthMm: 38, markHeightMm: 22, coatMarginMm: 3 },
  ...{ substrateId: id(2), headId: id(4), lensId: id(5), compoundId: null, choiceReason: 'bare', state: 'open' },
  ...{ aim: { tone: 'dark on light', strength: 'clear', work: 'fill' }, foodUse: false },
};
const ITEMS = [
  item('substrate', id(2), { name: 'Stainless', family: 'stainless', layer: 'bare' }),
  item('head', id(4), { name: 'Head', machineId: id(3) }),
  item('lens', id(5), { name: 'Lens', headId: id(4) }),
  item('machine', id(3), { name: 'Long bench', topSpeedMmPerS: 600, laserMinorPerMinute: 25 }),
];
const run = (change: object = {}) => ({
  ...{ id: id(7), ticketId: id(1), pieces: 6, at: '2026-03-01T10:00:00.000Z', grade: 'proved', correctedById: null },
  ...{ minutes: 12, minutesFrom: 'typed', bench: null, recipeId: null },
  cleaning: {
    id: id(8),
    method: 'water and sponge',
    minutes: 2,
    residue: 'none',
    at: '2026-03-01T10:10:00.000Z',
    by: id(6),
  },
  judgement: null,
  ...change,
});
const judgement = {
  id: id(8),
  contrastStep: 4,
  evenness: 'even',
  piecesGood: 6,
  faults: [],
  tests: [],
  note: '',
  at: '',
  by: id(6),
};
const TEST = {
  ...{
    id: id(9),
    runId: id(7),
    ticketId: id(1),
    piece: 2,
    protocol: 'dishwasher',
    dose: 25,
    beforeContrast: 50,
    readBy: 'picture',
  },
  ...{ note: '', looks: [] as object[], dueOn: '2026-03-14', over: false, at: '2026-03-01T10:20:00.000Z', by: id(6) },
};
const open = (component: any, page: object, more: { props?: object; answers?: Record<string, unknown> } = {}) =>
  mountOnTicket(component, { ticket: TICKET, items: ITEMS, page, ...more });
type Mounted = Awaited<ReturnType<typeof open>>['page'];
const types = async (page: Mounted, testId: string, text: string) => {
  await page.find(by(testId)).setValue(text);
  await page.find(by(testId)).trigger('blur');
  await flushPromises();
};
const presses = async (page: Mounted, testId: string) => {
  await page.find(by(testId)).trigger('click');
  await flushPromises();
};

describe('what marks stand', () => {
  it('waits for the wash', async () => {
    const { page } = await open(DurabilityPanel, { runs: [run({ cleaning: null })] }, { props: { spoilt: [] } });
    expect(page.text()).toMatch(/Clean a run first/);
    expect(page.find(by('durability-add')).exists()).toBe(false);
  });

  it('is begun as planned; one that takes the mark off is offered on a piece that is faulty already', async () => {
    const { page, server } = await open(DurabilityPanel, { runs: [run()] }, { props: { spoilt: [5] } });
    await presses(page, 'durability-add');
    await choose(page, 'protocol', '600 grit');
    expect(page.find<HTMLInputElement>(by('durability-piece')).element.value).toBe('5');
    expect(page.find<HTMLInputElement>(by('durability-dose')).element.value).toBe('10');
    await choose(page, 'protocol', 'pad, wet');
    await types(page, 'durability-piece', '2');
    await page.find('form').trigger('submit');
    await flushPromises();
    expect(server.posts().at(-1)).toMatchObject({
      path: `/api/tickets/${id(1)}/durability`,
      body: { runId: id(7), piece: 2, protocol: 'pad, wet', dose: 40, beforeContrast: null, readBy: null, dueOn: null },
    });
  });

  it('is looked at: nothing is answered beforehand, what is kept has its interval', async () => {
    const look = {
      id: id(8),
      doseDone: 10,
      result: 'no change',
      afterContrast: 49,
      at: '2026-03-10T10:00:00.000Z',
      by: id(6),
    };
    const { page, server } = await open(
      DurabilityPanel,
      { runs: [run()], durability: [{ ...TEST, looks: [look] }] },
      { props: { spoilt: [] } },
    );
    expect(page.find(by('durability-dishwasher')).text()).toMatch(
      /10 of 25 cycles · piece\s+2.*98.%.*\(9\d.%–10\d.%\)/s,
    );
    await presses(page, 'look-dishwasher');
    expect(page.find<HTMLInputElement>(by('look-dose')).element.value).toBe('');
    await types(page, 'look-dose', '25');
    await choose(page, 'look-result', 'slightly paler');
    await types(page, 'look-after', '45');
    expect(page.find(by('look-next')).exists()).toBe(false);
    await page.find('form').trigger('submit');
    await flushPromises();
    expect(server.posts().at(-1)).toMatchObject({
      path: `/api/durability/${id(9)}/looks`,
      body: { doseDone: 25, result: 'slightly paler', afterContrast: 45, nextOn: null },
    });
  });

  it('is compared test by test, what was only looked at without an interval', async () => {
    const row = (change: object) => ({
      ...{
        testId: id(8),
        ticketId: id(1),
        runId: id(7),
        compoundId: id(3),
        compoundName: 'Corvid Film',
        substrateId: id(2),
      },
      ...{ substrateName: 'Stainless', protocol: 'pad, wet', dose: 40, doseDone: 40, result: 'no change', at: '' },
      ...{ beforeContrast: null, afterContrast: null, readBy: null, ...change },
    });
    const rows = [
      row({ testId: id(3), beforeContrast: 50, afterContrast: 40, readBy: 'picture' }),
      row({ ticketId: id(9), compoundName: 'Russet Trial', result: 'lost' }),
      row({ testId: id(4), protocol: 'weather', compoundName: null }),
    ];
    const { page } = await open(
      LastingChart,
      {},
      {
        props: { substrateId: id(2), ticketId: id(1) },
        answers: { [`/api/durability?substrateId=${id(2)}`]: rows },
      },
    );
    expect(page.findAll('h4').map((one: any) => one.text())).toEqual(['Abrasive pad, wet', 'Weather']);
    expect(page.findAll('.interval')).toHaveLength(1);
    expect(page.text()).toMatch(/Corvid Film, 40 strokes.*80 %.*Russet Trial, 40 strokes.*lost.*bare beam/s);
  });
});

describe('a verdict', () => {
  it('waits until every run is judged', async () => {
    const { page } = await open(VerdictPanel, { runs: [run()] });
    expect(page.text()).toMatch(/A run is not judged yet/);
    expect(page.find(by('decide')).exists()).toBe(false);
  });

  it('is a press where all is good and proved', async () => {
    const { page, server } = await open(VerdictPanel, { runs: [run({ judgement })] });
    expect(page.find(by('verdict-facts')).text()).toMatch(/6 of 6 pieces are good/);
    expect(page.find(by('decide')).attributes('disabled')).toBeDefined();
    await presses(page, 'verdict-hand over');
    expect(page.find(by('stands-for-it')).exists()).toBe(false);
    await page.find('form').trigger('submit');
    await flushPromises();
    expect(server.posts().at(-1)).toMatchObject({
      path: `/api/tickets/${id(1)}/verdicts`,
      body: { verdict: 'hand over', standsForIt: false },
    });
  });

  it('below Proved asks for a name; exceptions are named', async () => {
    const { page, server } = await open(VerdictPanel, {
      runs: [run({ judgement: { ...judgement, faults: ['grainy'] }, grade: 'carried' })],
    });
    expect(page.find(by('verdict-facts')).text()).toMatch(/faults seen: grainy/);
    await presses(page, 'verdict-hand over with exceptions');
    await types(page, 'exceptions', 'tag 3 is grainy');
    await page.find(`${by('stands-for-it')}, ${by('stands-for-it')} input`).setValue(true);
    await page.find('form').trigger('submit');
    await flushPromises();
    expect(server.posts().at(-1)!.body).toMatchObject({
      verdict: 'hand over with exceptions',
      exceptions: 'tag 3 is grainy',
      standsForIt: true,
    });
    await presses(page, 'verdict-rework');
    expect(page.find(by('stands-for-it')).exists()).toBe(false);
  });
});

describe('faults placed where they lie', () => {
  const sample = { runId: id(7), aside: [2], names: [], scrub: null, drawn: [], checks: [], faults: [] as object[] };
  const judging = (change: object = {}) =>
    open(JudgeStation, { runs: [run()] }, { answers: { [`/api/runs/${id(7)}/sample`]: { ...sample, ...change } } });

  it('on the drawing of the piece, and ticked among the faults seen', async () => {
    const { page, server } = await judging();
    await presses(page, 'piece-4');
    await presses(page, 'placed-grainy');
    expect(server.posts().at(-1)).toMatchObject({
      path: `/api/runs/${id(7)}/piece-faults`,
      body: { piece: 4, fault: 'grainy' },
    });
    expect(page.find<HTMLInputElement>(by('fault-grainy')).element.checked).toBe(true);
    expect(page.find<HTMLInputElement>(by('fault-patchy')).element.checked).toBe(false);
  });

  it('show with their place and count in the hint; nothing after all takes one back', async () => {
    const fault = { piece: 4, fault: 'grainy', spot: { x: 0.5, y: 0.5 }, at: '', by: id(6) };
    const { page, server } = await judging({
      faults: [fault],
      names: ['BED 1', 'BED 2', 'BED 3', 'BED 4', 'BED 5', 'BED 6'],
    });
    expect(page.find(by('piece-4')).text()).toMatch(/BED 4.*grainy/s);
    expect(page.text()).toMatch(/Of 6, 1 set aside, 1 with a fault/);
    await presses(page, 'piece-4');
    expect(page.find(by('place-fault')).text()).toMatch(/wrong with BED 4/);
    await presses(page, 'placed-nothing');
    expect(server.posts().at(-1)!.body).toMatchObject({ piece: 4, fault: null, spot: null });
  });
});

describe('how it came off before', () => {
  const way = { method: 'water and sponge', runs: 4, clean: 3, minutesPerPiece: 0.45, low: 0.4, high: 0.5 };
  const advised = (rows: object[]) =>
    open(CleaningAdvice, {}, { answers: { [`/api/tickets/${id(1)}/cleaning-advice`]: rows } });

  it('names the gentlest way that left nothing more often than not', async () => {
    const { page } = await advised([{ ...way, method: 'dry paper towel', clean: 1 }, way]);
    expect(page.text()).toMatch(/Gentlest that left nothing: water and sponge, 3 of 4 runs,\s+0\.45 min a piece/);
    expect(page.findAll('li')).toHaveLength(2);
  });

  it('says nothing where nothing was cleaned, and none where none left nothing', async () => {
    expect((await advised([])).page.find(by('cleaning-advice')).exists()).toBe(false);
    const { page } = await advised([{ ...way, clean: 0, low: null, high: null }]);
    expect(page.text()).not.toMatch(/Gentlest/);
    expect(page.text()).not.toMatch(/to 0/);
  });
});
