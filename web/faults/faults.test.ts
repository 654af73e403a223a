// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import AskedQuestions from '../station/AskedQuestions.vue';
import ReworkChoice from '../marking/ReworkChoice.vue';
import { by, fakeServer, item, mountInShop } from '../testing/shop';
import { mountOnTicket } from '../testing/ticket';
import CausesView from './CausesView.vue';
import FaultView from './FaultView.vue';

vi.mock('idb-keyval', () => import('../testing/memory-storage'));
beforeEach(() => localStorage.clear());
afterEach(() => vi.unstubAllGlobals());

const id = (n: number) => `00000000-0000-4000-8000-00000000000${n}`;
const RECORD = {
  coat: {
    ...{ handling: 'loose powder', film: null, bandUm: { low: 10, high: 18 }, findings: null, driedS: 300, dryS: 240 },
    ...{ shaken: true, pastTime: false, humidity: null, stored: false, lot: null },
  },
  ...{ air: 'on', extraction: 'on', lensHours: null, tubeHours: null, pieces: null, spots: [] },
  place: { heightsRead: false, offMm: null, depthMm: 0.53, longestMm: 160, focusFound: true, focusTicked: true },
  setting: { window: null, intervalToSpot: 0.7, speedToRecipe: 1, asProved: true, drifts: false },
  part: {
    ...{ metal: true, vitreous: false, bareTicked: true, notBare: null, groundLikeMark: false, degreased: true },
    lot: null,
  },
  wash: { afterMinutes: 20, cooled: null, residue: 'none' },
};
const WORK = {
  ...{
    coatMinutes: 1,
    dryMinutes: 4,
    markMinutes: 15,
    cleanMinutes: 1,
    stripMinutes: 12,
    compoundMinor: 40,
    compoundG: 2,
  },
  ...{ blankMinor: 300, labourMinorPerMinute: 40, laserMinorPerMinute: 20, regionShare: 1, placeMinutes: 3 },
};
const PAGE = {
  ...{
    kind: 'run',
    subjectId: id(7),
    ticketId: id(1),
    title: 'Scale',
    about: '2 pieces',
    at: '2026-03-01T10:00:00.000Z',
  },
  ...{ made: 2, others: [], surface: null, record: RECORD, markWidthMm: 160, markHeightMm: 14, cases: [], settled: [] },
  proposals: [{ fault: 'pale along one edge', spot: { x: 0.5, y: 0.9 }, piece: 2, words: 'picture of piece 2' }],
  ...{ before: [], work: WORK, recipe: { id: id(3), number: 1, air: 'off', suspended: false } },
  compound: { id: id(2), name: 'Soothollow', airAssist: null },
  container: null,
};
const caseOf = (body: any, change: object = {}) => ({
  ...{ id: id(9), ticketId: id(1), kind: 'run', subjectId: id(7), pieces: [2], record: RECORD },
  looks: [{ id: id(8), faults: body.faults ?? ['pale along one edge'], spots: [], note: '', at: '', by: id(6) }],
  ...{ tests: [], findings: [], at: '2026-03-01T11:00:00.000Z', by: id(6), ...change },
});

async function open(page: object = PAGE) {
  const server = fakeServer({
    [`/api/faults/of/run/${id(7)}`]: page,
    'POST /api/faults': caseOf({}),
    [`POST /api/faults/${id(9)}/tests`]: caseOf({}),
    [`POST /api/faults/${id(9)}/findings`]: caseOf({}),
  });
  const { page: view } = await mountInShop(FaultView, { props: { kind: 'run', id: id(7) } });
  await flushPromises();
  return { view, server };
}
const press = async (view: any, selector: string) => {
  await view.find(selector).trigger('click');
  await flushPromises();
};

describe('finding a fault', () => {
  it('begins with what was read, names air before tilt, and says what each fact weighs', async () => {
    const { view } = await open();
    expect(view.find(by('look-pale along one edge')).attributes('aria-checked')).toBe('true');
    const first = view.findAll('[data-test-id^="cause-"]')[0]!;
    expect(first.text()).toContain('Air blew the powder off');
    expect(view.find(by('causes')).text()).toMatch(/air on, over loose powder × 5/);
    expect(view.findAll('[data-test-id^="cause-"]')[1]!.text()).toContain('tilted');
    // The likeliest is an offer, no answer: nothing is pressed for anybody.
    expect(view.findAll('[role="checkbox"][aria-checked="true"]')).toHaveLength(1);
  });

  it('says why two looks cannot be one piece, and ranks nothing then', async () => {
    const { view } = await open();
    await press(view, by('look-washed off whole'));
    expect(view.find('[role="alert"]').text()).toContain('cannot be “pale along one edge” too');
    expect(view.find(by('causes')).exists()).toBe(false);
  });

  it('opens the case with the first test, and keeps the result', async () => {
    const { view, server } = await open();
    const offered = view.find(by('fault-test')).text();
    expect(offered).toMatch(/min, no blank/);
    await press(view, by('start-test'));
    await press(view, by('test-clear'));
    const sent = server.posts();
    expect(sent.map(({ path }) => path)).toEqual(['/api/faults', `/api/faults/${id(9)}/tests`]);
    expect(sent[0]!.body).toMatchObject({ kind: 'run', pieces: [2], faults: ['pale along one edge'] });
    expect(sent[1]!.body).toMatchObject({ result: 'clear' });
  });

  it('settles with causes, way and remedies as pressed, none of them by itself', async () => {
    const { view, server } = await open();
    await press(view, by('cause-air blew the powder'));
    expect(view.find(by('remedies')).text()).toMatch(/Soothollow in Stores: air off.*Mark asks:/s);
    // The recipe has it off already: there is nothing to change.
    expect(view.find(by('remedy-recipe air off')).exists()).toBe(false);
    await view.find(by('remedy-question')).setValue(true);
    await view.find(by('way-redo the region')).setValue(true);
    await press(view, by('settle-fault'));
    await view.find('form#settle-fault').trigger('submit');
    await flushPromises();
    const finding = server.posts().find(({ path }) => path.endsWith('/findings'))!.body as { remedies: unknown };
    expect(finding).toMatchObject({ causes: ['air blew the powder'], way: 'redo the region' });
    expect(finding.remedies).toEqual([expect.objectContaining({ kind: 'question' })]);
  });

  it('tells the chance of a way by what is put right with it', async () => {
    const { view } = await open();
    const chance = () =>
      Number(
        view
          .findAll(`${by('ways-out')} tbody tr`)[0]!
          .findAll('td')[3]!
          .text()
          .split(' ')[0],
      );
    await press(view, by('cause-air blew the powder'));
    const before = chance();
    await view.find(by('remedy-compound air off')).setValue(true);
    await flushPromises();
    expect(chance()).toBeGreaterThan(before);
  });

  it('lists every cause on demand, each with how far other tables would put it', async () => {
    const { view } = await open();
    expect(view.findAll('[data-test-id^="cause-"]').length).toBeLessThan(7);
    const more = view.findAll('button').find((button: any) => /All \d+ causes/.test(button.text()))!;
    await more.trigger('click');
    expect(view.findAll('[data-test-id^="cause-"]').length).toBeGreaterThan(15);
    expect(view.text()).toMatch(/between \d+ and \d+ by other tables as good/);
  });

  it('points at a result that was hardly to be expected', async () => {
    const tests = [
      { id: id(5), test: 'acetone', result: 'found', note: '', at: '2026-03-01T11:10:00.000Z', by: id(6) },
    ];
    const { view } = await open({ ...PAGE, cases: [caseOf({}, { tests })] });
    expect(view.text()).toContain('hardly to be expected');
  });
});

describe('what is asked since', () => {
  const TICKET = {
    ...{ id: id(1), number: 7, version: 1, title: 'Scale', pieces: 4, markWidthMm: 160, markHeightMm: 14 },
    ...{ coatMarginMm: 3, substrateId: id(2), headId: id(4), lensId: id(5), compoundId: null, choiceReason: 'bare' },
    ...{ state: 'open', aim: { tone: 'dark on light', strength: 'clear', work: 'fill' }, foodUse: false },
  };
  const ITEMS = [
    item('substrate', id(2), { name: 'Aluminium', family: 'aluminium', layer: 'bare' }),
    item('head', id(4), { name: 'Head', machineId: id(3) }),
    item('lens', id(5), { name: 'Lens', headId: id(4) }),
    item('machine', id(3), { name: 'Long bench', topSpeedMmPerS: 600 }),
  ];
  const question = {
    ...{ id: id(9), station: 'mark', text: 'Air assist shut at its valve', compoundId: null, substrateId: null },
    ...{ longerThanMm: null, caseId: null, at: '2026-03-01T10:00:00.000Z', by: id(6), answered: false },
  };

  it('stands at its station until it is ticked, under its own code', async () => {
    const { page, server } = await mountOnTicket(AskedQuestions, {
      ...{ ticket: TICKET, items: ITEMS, page: { questions: [question] }, props: { station: 'mark' } },
    });
    expect(page.text()).toContain('before every run');
    await page.find(by(`asked-${id(9)}`)).setValue(true);
    await flushPromises();
    const sent = server.posts()[0]!;
    expect(sent.body).toMatchObject({ station: 'mark', kind: 'check', code: `question-${id(9)}` });
  });

  it('offers pieces that wait to be made anew, with the focus there', async () => {
    const waits = { id: id(8), pieces: [2], way: 'redo the region', region: null, focusMm: 0.4, doneRunId: null };
    const { page } = await mountOnTicket(ReworkChoice, {
      ...{ ticket: TICKET, items: ITEMS, page: { reworks: [waits, { ...waits, doneRunId: id(7) }] } },
    });
    expect(page.findAll('p')).toHaveLength(1);
    expect(page.text()).toContain('Piece 2: focus +0.4');
  });
});

describe('what went wrong', () => {
  it('lists causes as often as they were found, with the share of those above', async () => {
    const cause = (name: string, cases: number) => ({
      ...{ cause: name, cases, newest: '2026-03-01T10:00:00.000Z', faults: ['grainy'] },
      over: [cases, 0],
      subject: { kind: 'run', id: id(7), title: 'Tallies' },
    });
    fakeServer({
      '/api/fault-causes': {
        ...{ cases: 4, open: 1, causes: [cause('too fast', 3), cause('weak beam', 1)], by: 'month' },
        whiles: [
          { from: '2026-03-01T00:00:00.000Z', cases: 4 },
          { from: '2026-04-01T00:00:00.000Z', cases: 0 },
        ],
      },
      '/api/questions': [],
    });
    const { page } = await mountInShop(CausesView);
    await flushPromises();
    expect(page.find(by('found-causes')).text()).toMatch(/4 faults traced.*1 looked for.*By the month.*75 %.*100 %/s);
    expect(page.findAll('.columns').map((one) => one.attributes('aria-label'))).toEqual([
      expect.stringMatching(/^3 from 1 Mar/),
      expect.stringMatching(/^1 from 1 Mar/),
    ]);
  });
});
