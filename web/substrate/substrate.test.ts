// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { by, fakeServer, mountInShop } from '../testing/shop';
import SubstrateView from './SubstrateView.vue';

vi.mock('idb-keyval', () => import('../testing/memory-storage'));
beforeEach(() => localStorage.clear());
afterEach(() => vi.unstubAllGlobals());

const id = (n: number) => `00000000-0000-4000-8000-00000000000${n}`;
const RECIPE = {
  ...{ id: id(5), ticketId: null, substrateId: id(2), compoundId: id(3), headId: id(4), lensId: id(6), number: 2 },
  ...{ kind: 'quickest', couponIds: [], weights: [], runIds: [], valid: null, powerPercent: 90, powerW: 38 },
  ...{ speedMmPerS: 115, intervalMm: 0.06, passes: 1, hatches: 1, angleDeg: 0, fill: 'filled', focusOffsetMm: 0 },
  ...{ frequencyKHz: null, pulseNs: null, directions: 'two-way', powerMode: 'constant', air: 'off', extraction: 'on' },
  ...{ seed: 7, secondsPerPiece: 90, fit: null, worst: null, grade: 'proved', because: [], revisions: {} },
  ...{ acceptedBy: 'ines', acceptedAt: '2026-03-01T10:00:00.000Z' },
  state: { state: 'suspended', why: 'paler', since: null, by: null },
};
const SHEET = {
  ...{ id: id(2), name: '304 stainless', family: 'stainless', layer: 'bare', finish: '2B', thicknessMm: 1.2, runs: 30 },
  settings: [
    {
      ...{ compoundId: id(3), compoundName: 'Soothollow', headId: id(4), headName: 'Long bench', lensName: '50.8 mm' },
      ...{
        recipe: RECIPE,
        grade: 'proved',
        runs: 30,
        pieces: 90,
        good: 85,
        minutesPerPiece: 2.29,
        gramsPerPiece: 1.58,
      },
      ...{ priceMinor: 97, swatch: true },
    },
  ],
  cleaning: [
    {
      compoundId: id(3),
      compoundName: 'Soothollow',
      method: 'water and sponge',
      runs: 30,
      clean: 24,
      minutesPerPiece: 0.56,
    },
  ],
  lasting: [],
  faults: [
    { fault: 'density drifts', runs: 5, causes: [{ cause: 'extraction pulled the powder', cases: 2 }] },
    { fault: 'grainy', runs: 1, causes: [] },
  ],
  reworks: [
    { way: 'redo the region', good: 2, made: 3 },
    { way: 'scrap', good: 0, made: 0 },
  ],
  never: [{ compoundId: id(7), compoundName: 'Corvid Film', headId: id(8), headName: 'Post fibre' }],
  at: '2026-03-01T10:00:00.000Z',
};

async function open(change: object = {}) {
  fakeServer({ [`/api/substrates/${id(2)}/sheet`]: { ...SHEET, ...change } });
  const { page } = await mountInShop(SubstrateView, { props: { id: id(2) } });
  await flushPromises();
  return page;
}

describe('what works on a substrate', () => {
  it('names each setting with how it went, what it takes and what it costs; one that rests says so', async () => {
    const page = await open();
    const settings = page.find(by('sheet-settings')).text();
    expect(settings).toMatch(/Soothollow.*Long bench.*85 of 90 good, 30 runs/s);
    expect(settings).toContain('suspended');
    expect(settings).toMatch(/2\.29.min/);
    expect(settings).toMatch(/0\.97/);
    expect(page.find('img').attributes('src')).toBe(`/api/recipes/${id(5)}/swatch.svg`);
  });

  it('says how it is cleaned, what its faults were traced to, what came out when made anew, what was never tried', async () => {
    const text = (await open()).text();
    expect(text).toMatch(/water and sponge.*nothing left in 24 of 30/s);
    expect(text).toMatch(/density drifts.*5 runs.*extraction pulled the powder off \(2\)/s);
    expect(text).toMatch(/grainy.*in 1 run.*not traced yet/s);
    expect(text).toMatch(/redo the region: 2 of 3 came out/);
    expect(text).not.toContain('scrap:');
    expect(text).toContain('Corvid Film under Post fibre');
  });

  it('says what to do first where nothing is known, and goes to paper with its own address', async () => {
    const page = await open({ settings: [], cleaning: [], faults: [], reworks: [], never: [], runs: 0 });
    expect(page.text()).toContain('No setting was taken on it yet');
    expect(page.text()).toContain('Nothing was tested beyond the scrub');
    expect(page.text()).toContain('No fault was said of any run');
    expect(page.find(by('sheet-pdf')).attributes('href')).toMatch(/sheet\.pdf\?at=http/);
  });
});
