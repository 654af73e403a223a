// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { by, fakeServer, mountInShop } from '../testing/shop';
import RunView from './RunView.vue';

vi.mock('idb-keyval', () => import('../testing/memory-storage'));
beforeEach(() => localStorage.clear());
afterEach(() => vi.unstubAllGlobals());

const id = (n: number) => `00000000-0000-4000-8000-00000000000${n}`;
const RUN = {
  ...{ id: id(7), ticketId: id(1), recipeId: null, correctsId: null, pieces: 6, minutes: 9, minutesFrom: 'typed' },
  ...{ power: { value: 90, unit: '%' }, speed: { value: 100, unit: 'mm/s' }, interval: { value: 0.06, unit: 'mm' } },
  ...{ passes: 1, hatches: 1, angleDeg: 0, fill: 'filled', focusOffsetMm: 0, frequencyKHz: null, pulseNs: null },
  ...{ directions: 'two-way', powerMode: null, air: 'on', extraction: 'on', powerPercent: 90, powerW: 38 },
  ...{ speedMmPerS: 100, intervalMm: 0.06, dose: null, grade: 'carried', because: [], bench: null, note: '' },
  ...{ at: '2026-03-01T10:00:00.000Z', by: 'ines', ticketNumber: 7, ticketTitle: 'Scale', substrateId: id(2) },
  ...{
    substrateName: 'Aluminium',
    compoundId: id(3),
    compoundName: 'Soothollow',
    headId: id(4),
    headName: 'Long bench',
  },
  ...{ lensName: '50.8 mm', revisions: {}, correctedById: null, cleaning: null, reason: '' },
  judgement: {
    ...{ id: id(8), contrastStep: 3, evenness: 'patchy', piecesGood: 4, faults: ['pale along one edge'], tests: [] },
    ...{ note: '', at: '2026-03-01T11:00:00.000Z', by: 'ines' },
  },
};
const finding = (causes: string[]) => ({
  ...{ id: id(5), causes, way: 'redo the region', plan: null, chances: [], note: '', at: '', by: 'ines' },
  remedies: [{ kind: 'question', words: 'Mark asks: Air assist shut at its valve', recordId: id(6) }],
});
const caseOf = (findings: object[]) => ({
  ...{
    id: id(9),
    ticketId: id(1),
    kind: 'run',
    subjectId: id(7),
    pieces: [2],
    record: {},
    tests: [],
    at: '',
    by: 'ines',
  },
  looks: [{ id: id(8), faults: ['pale along one edge'], spots: [], note: '', at: '', by: 'ines' }],
  findings,
});
const rework = (change: object = {}) => ({
  ...{ id: id(5), ticketId: id(1), runId: id(7), caseId: null, way: 'redo the region', pieces: [2], region: null },
  ...{ alignment: null, focusMm: null, note: '', doneRunId: null, at: '', by: 'ines', ...change },
});

async function open(story: object = {}, run: object = {}) {
  fakeServer({
    [`/api/runs/${id(7)}`]: { ...RUN, ...run },
    [`/api/runs/${id(7)}/story`]: { cases: [], reworks: [], reworkOf: null, stood: [], work: null, ...story },
  });
  const { page } = await mountInShop(RunView, { props: { id: id(7) } });
  await flushPromises();
  return page;
}

describe('the page of a run', () => {
  it('leads to the fault, and to what works on its substrate', async () => {
    const page = await open();
    expect(page.find(by('find-fault')).attributes('href')).toBe(`/faults/run/${id(7)}`);
    expect(page.find(`a[href="/substrates/${id(2)}"]`).exists()).toBe(true);
    expect(page.find(by('run-fault')).exists()).toBe(false);
  });

  it('says what its marks stood, what it came to and of what, and what nobody read', async () => {
    const work = {
      ...{ coatMinutes: 2, cleanMinutes: 1, compoundG: 0, compoundMinor: 0, blankMinor: 150 },
      ...{ labourMinorPerMinute: 40, laserMinorPerMinute: 20 },
    };
    const stood = [{ protocol: 'dishwasher', doseDone: 20, dose: 50, result: 'no change' }];
    const page = await open({ work, stood }, { pieces: 4, minutes: 8, judgement: { ...RUN.judgement, piecesGood: 2 } });
    expect(page.find(by('run-stood')).text()).toMatch(/^Dishwasher, 20 of 50 .*: no change$/);
    expect(page.find(by('run-cost')).text()).toMatch(
      /12\.40.*6\.20.*a good piece.*blanks 6\.00.*laser 1\.60.*hands 4\.80/s,
    );
    expect(page.find(by('run-cost')).text()).toContain('cleaning as usual');
    expect((await open()).find(by('run-cost')).exists()).toBe(false);
  });

  it('says what a fault was traced to and what was changed; that a finding was corrected', async () => {
    const once = await open({ cases: [caseOf([finding(['air blew the powder'])])] });
    expect(once.find(by('run-fault')).text()).toBe(
      'pale along one edge: air blew the powder off; Mark asks: Air assist shut at its valve',
    );
    const twice = await open({ cases: [caseOf([finding(['uneven spray']), finding(['air blew the powder'])])] });
    expect(twice.find(by('run-fault')).text()).toContain('the finding was corrected');
    expect(twice.text()).not.toContain('sprayed unevenly');
  });

  it('says what is still looked for, and what was never found out', async () => {
    const open1 = await open({ cases: [caseOf([])] });
    expect(open1.find(by('run-fault')).text()).toContain('looked for, not settled');
    const never = await open({ cases: [caseOf([{ ...finding([]), remedies: [] }])] });
    expect(never.find(by('run-fault')).text()).toContain('not found out');
  });

  it('links what was made anew both ways', async () => {
    const first = await open({ reworks: [rework(), rework({ id: id(6), doneRunId: id(4) })] });
    expect(first.text()).toMatch(/piece 2: redo the region, not done yet/);
    expect(first.find(`a[href="/ledger/${id(4)}"]`).text()).toBe('in this run');
    const second = await open({ reworkOf: rework({ runId: id(3) }) });
    expect(second.text()).toMatch(/piece 2 of this run: redo the region/);
    expect(second.find(`a[href="/ledger/${id(3)}"]`).exists()).toBe(true);
  });

  it('shows a correction from both sides', async () => {
    const corrected = await open({}, { correctedById: id(4) });
    expect(corrected.text()).toContain('This run was corrected');
    const correcting = await open({}, { correctsId: id(3) });
    expect(correcting.find(`a[href="/ledger/${id(3)}"]`).text()).toBe('an earlier entry');
  });
});
