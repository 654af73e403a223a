import { describe, expect, it } from 'vitest';
import {
  fitWindow,
  judgeSetting,
  PLAIN_DESIGN,
  SETTING_PART_NAMES,
  seededRandom,
  standardNormal,
  type CouponDesign,
} from '@unto/core';
import type { Firing, Revisions } from '@unto/contract';
import { windowEquipment, type FittedEquipment } from '../equipment/fitted-equipment.js';
import { settableParts } from '../setting/core-setting.js';
import { firedRevisions, proofOf } from './proof.js';
import {
  bearsOn,
  cellWatts,
  couponWindowCells,
  newestReads,
  type CouponWindowCell,
  type FiredCoupon,
  type ReadOutcome,
} from './window-cells.js';
import { familyFor, partsOutside, settingIn, windowFamilies } from './window-families.js';

const FIBRE = {
  machine: { name: 'M', motion: 'galvo', topSpeedMmPerS: 8000, bedWidthMm: 120, bedHeightMm: 120, jumpDelayS: 0.0003 },
  head: {
    name: 'F',
    ratedW: 60,
    usual: [],
    firingThresholdPercent: 5,
    frequencyKHzMin: 20,
    frequencyKHzMax: 200,
    pulseNsMin: 2,
    pulseNsMax: 350,
  },
  lens: { spotXMm: 0.06, spotYMm: 0.06, depthOfFocusMm: 0.5, depthGrowth: 0.05 },
  substrate: { conductivity: 0.0162, diffusivity: 4.05 },
  calibration: null,
} as unknown as FittedEquipment;

const design = (change: Partial<CouponDesign> = {}): CouponDesign => ({
  ...PLAIN_DESIGN,
  code: 'K-001',
  axes: {
    x: { parameter: 'power', spacing: 'linear', from: 20, to: 100, count: 6 },
    y: { parameter: 'speed', spacing: 'log', from: 200, to: 2000, count: 6 },
  },
  fixed: { powerPercent: 80, speedMmPerS: 500, intervalMm: 0.03, frequencyKHz: 100, pulseNs: 100 },
  cell: { widthMm: 3, heightMm: 3 },
  gapMm: 1,
  marginMm: 4,
  fill: 'filled',
  lineSpacingMm: 0.5,
  hatchAngleDeg: 0,
  directions: 'two-way',
  labels: { at: 'edges', heightMm: 1, powerPercent: 60, speedMmPerS: 300 },
  blank: { widthMm: 80, heightMm: 80 },
  ...change,
});
const FIRING: Firing = { air: 'off', extraction: 'on', powerMode: 'constant', cellW: [], compounds: [] };
const coupon = (change: Partial<FiredCoupon> = {}): FiredCoupon => {
  const own = change.design ?? design();
  const firing = { ...FIRING, cellW: cellWatts(own, FIBRE) };
  return { id: 'k1', design: own, compoundId: 'c', focusOffsetMm: 0, firing, ...change };
};

/** Outcomes of a made-up coat by P·v^−0.6, spray noise 6 %. */
function cellsOf(made: FiredCoupon, of: string | null = 'c', byEye: (i: number) => boolean = () => false) {
  const random = seededRandom(4);
  const reads = new Map(
    Array.from({ length: 400 }, (_, i) => [
      i,
      { outcome: 'holds', byEye: byEye(i), lookedAgain: false, kept: null } as ReadOutcome,
    ]),
  );
  return couponWindowCells(made, of, reads, FIBRE).map((cell): CouponWindowCell => {
    const effect = Math.log(cell.powerW) - 0.6 * Math.log(cell.speedMmPerS) + 0.06 * standardNormal(random);
    return { ...cell, outcome: effect < -0.6 ? 'under' : effect < 0.5 ? 'holds' : 'over' };
  });
}

const TOLERANCE = { powerShare: 0.05, focusShare: 0.01 };
function proved(cells: readonly CouponWindowCell[], change: object = {}, otherRevisions: readonly string[] = []) {
  const family = windowFamilies(cells)[0]!;
  const equipment = windowEquipment(FIBRE);
  const fit = fitWindow({ cells: family.cells, equipment, seed: 1 });
  const chosen = { ...family.cells[0]!, powerPercent: 68, powerW: 40.8, speedMmPerS: 500 };
  const setting = { ...settingIn(family, chosen), ...change };
  return proofOf(family, setting, { fit, equipment, tolerance: TOLERANCE, bound: 0.8, otherRevisions, settable: [] });
}

describe('a proof', () => {
  it('is one from pictures on the very setting, revisions and range', () => {
    expect(proved(cellsOf(coupon()))).toMatchObject({ grade: 'proved', because: [], inside: true });
  });

  it.each([
    ['focusOffsetMm', 2],
    ['hatches', 2],
    ['angleDeg', 45],
    ['frequencyKHz', 60],
    ['frequencyKHz', null],
    ['pulseNs', 200],
    ['fill', 'lines'],
    ['directions', 'one-way'],
    ['powerMode', 'scaled'],
    ['air', 'on'],
    ['air', null],
    ['extraction', 'off'],
  ] as const)('is none where %s is another than on the coupon: %s', (part, value) => {
    const proof = proved(cellsOf(coupon()), { [part]: value });
    expect(proof.grade).toBe('carried');
    expect(proof.because[0]).toMatch(new RegExp(`^${SETTING_PART_NAMES[part]}: `));
  });

  it('is none under other coats than its cells had; where they vary them it is one under each that was tried', () => {
    const one = cellsOf(coupon());
    expect(proved(one, { coats: 2 })).toMatchObject({ grade: 'carried', because: ['coats: 2, but 1 on the coupon'] });
    const both = [...one, ...one.map((cell): CouponWindowCell => ({ ...cell, coats: 2 }))];
    const [family, none] = windowFamilies(both);
    expect([family!.varied, none]).toEqual([['coats'], undefined]);
    expect(proved(both, { coats: 2 })).toMatchObject({ grade: 'proved', because: [] });
    expect(proved(both, { coats: 3 }).because.join()).toContain('outside what the cells tried');
    expect(familyFor(windowFamilies(both), { ...one[0]!, coats: 2 })).toEqual(family);
  });

  it.each([
    ['passes', 2],
    ['intervalMm', 0.05],
    ['speedMmPerS', 4000],
    ['powerW', 70],
  ])('is none where %s lies outside what was tried: %s', (part, value) => {
    const proof = proved(cellsOf(coupon()), { [part]: value });
    expect(proof.grade).toBe('carried');
    expect(proof.because.join()).toContain('outside what the cells tried');
  });

  it('is none on other revisions, nor where it was not noted how the air stood', () => {
    expect(proved(cellsOf(coupon()), {}, ['K-001'])).toMatchObject({ grade: 'carried' });
    const blind = coupon({ firing: { ...coupon().firing!, air: null } });
    expect(proved(cellsOf(blind)).because.join()).toMatch(/air assist: not noted/);
    expect(proved(cellsOf(coupon({ firing: null }))).grade).toBe('carried');
  });

  it('is by eye when no picture was read, or when the pictures alone do not carry it', () => {
    expect(proved(cellsOf(coupon(), 'c', () => true)).grade).toBe('proved by eye');
    expect(proved(cellsOf(coupon(), 'c', (i) => i > 2)).grade).toBe('proved by eye');
    expect(proved(cellsOf(coupon(), 'c', (i) => i === 0)).grade).toBe('proved');
  });
});

describe('a head with a frequency to set', () => {
  it('proves nothing where it was not noted, on coupon and setting alike', () => {
    const cells = cellsOf(coupon({ design: design({ fixed: { ...design().fixed, frequencyKHz: null } }) }));
    const [family] = windowFamilies(cells);
    const equipment = windowEquipment(FIBRE);
    const fit = fitWindow({ cells, equipment, seed: 1 });
    const setting = settingIn(family!, { ...cells[0]!, powerPercent: 68, powerW: 40.8, speedMmPerS: 500 });
    const terms = { fit, equipment, tolerance: TOLERANCE, bound: 0.8, otherRevisions: [] };
    expect(proofOf(family!, setting, { ...terms, settable: [] }).grade).toBe('proved');
    expect(proofOf(family!, setting, { ...terms, settable: settableParts(FIBRE) })).toMatchObject({
      grade: 'carried',
      because: ['frequency: this head lets it be set, and it was not noted'],
    });
  });
});

describe('the coupon burnt only off focus, crossed at 45°, at 100 kHz', () => {
  const off = coupon({
    design: design({
      axes: {
        x: { parameter: 'focus', spacing: 'linear', from: 1.5, to: 2.5, count: 3 },
        y: { parameter: 'speed', spacing: 'log', from: 200, to: 2000, count: 6 },
        block: { parameter: 'power', spacing: 'list', values: [40, 60, 80, 100] },
      },
      blank: { widthMm: 120, heightMm: 120 },
      hatches: 2,
      hatchAngleDeg: 45,
    }),
  });
  const family = windowFamilies(cellsOf(off))[0]!;

  it('makes one family that varied focus, and shares all the rest', () => {
    expect(family.varied).toEqual(['focusOffsetMm']);
    expect(family.fixed).toMatchObject({ hatches: 2, angleDeg: 45, frequencyKHz: 100, pulseNs: 100, air: 'off' });
  });

  it('proves nothing at focus, for two passes uncrossed, or without a frequency', () => {
    const equipment = windowEquipment(FIBRE);
    const fit = fitWindow({ cells: family.cells, equipment, seed: 1 });
    const inside = settingIn(family, {
      ...family.cells[0]!,
      powerPercent: 70,
      powerW: 42,
      speedMmPerS: 500,
      focusOffsetMm: 2,
    });
    expect(judgeSetting(fit, inside, { tolerance: TOLERANCE, bound: 0.1 }).inside).toBe(true);
    const terms = { fit, equipment, tolerance: TOLERANCE, bound: 0.1, otherRevisions: [], settable: [] };
    expect(proofOf(family, { ...inside, focusOffsetMm: 0 }, terms).because).toContain('outside what the cells tried');
    const plain = { ...inside, hatches: 1, passes: 2, angleDeg: 0, frequencyKHz: null };
    expect(partsOutside(family, plain)).toEqual(['hatches', 'angleDeg', 'frequencyKHz']);
    expect(proofOf(family, plain, terms).grade).toBe('carried');
  });
});

describe('families', () => {
  it('keep coupons apart that differ in what they did not vary, and join those that agree', () => {
    const here = cellsOf(coupon());
    const again = cellsOf(coupon({ id: 'k2' }));
    const off = cellsOf(coupon({ id: 'k3', focusOffsetMm: 1 }));
    const blown = cellsOf(coupon({ id: 'k4', firing: { ...coupon().firing!, air: 'on' } }));
    const families = windowFamilies([...here, ...again, ...off, ...blown]);
    expect(families.map(({ couponIds }) => couponIds)).toEqual([['k1', 'k2'], ['k3'], ['k4']]);
    expect(familyFor(families, { ...off[0]!, air: 'off' })!.couponIds).toEqual(['k3']);
  });

  it('take a coupon in whose frequency lies within those that another varied', () => {
    const axes = {
      ...design().axes,
      block: { parameter: 'frequency', spacing: 'list', values: [60, 100, 140] } as const,
    };
    const wide = design({ axes, blank: { widthMm: 110, heightMm: 80 } });
    const over = cellsOf(coupon({ id: 'wide', design: wide }));
    const inside = cellsOf(coupon());
    expect(windowFamilies([...inside, ...over])).toHaveLength(1);
    const beyond = cellsOf(coupon({ design: design({ fixed: { ...design().fixed, frequencyKHz: 180 } }) }));
    expect(windowFamilies([...beyond, ...over])).toHaveLength(2);
  });

  it('take a last digit for nothing varied', () => {
    const cells = [...cellsOf(coupon()), ...cellsOf(coupon({ id: 'k2', focusOffsetMm: 0.01 }))];
    const [family] = windowFamilies(cells);
    expect(family!.varied).toEqual([]);
    expect(fitWindow({ cells: family!.cells, equipment: windowEquipment(FIBRE), seed: 1 }).form.terms).toEqual([]);
  });
});

describe('cells of a coupon', () => {
  const two = coupon({
    design: design({
      axes: { ...design().axes, block: { parameter: 'compound', spacing: 'list', values: [1, 2] } },
      compoundIds: ['c', 'd'],
      bareStrip: true,
      blank: { widthMm: 120, heightMm: 120 },
    }),
  });

  it('speak each of what lay under them: its own compounds and the bare strip', () => {
    const of = (id: string | null) => cellsOf(two, id).length;
    expect([of('c'), of('d')]).toEqual([36, 36]);
    expect(of(null)).toBeGreaterThan(0);
    expect(cellsOf(two, null).every(({ coats }) => coats === 0)).toBe(true);
    expect(['c', 'd', 'e', null].map((id) => bearsOn(two, id))).toEqual([true, true, false, true]);
  });

  it('keep the watts they were fired with', () => {
    const later = { ...FIBRE, head: { ...FIBRE.head, ratedW: 30 } };
    const reads = new Map([[5, { outcome: 'holds', byEye: false, lookedAgain: false, kept: null } as const]]);
    expect(couponWindowCells(coupon(), 'c', reads, later)[0]!.powerW).toBeCloseTo(60, 9);
  });

  it('are held against the revision of their own compound', () => {
    const revisions = {
      substrate: 's',
      compound: 'c@1',
      head: 'h',
      lens: 'l',
      machine: 'm',
      calibration: null,
    } as Revisions;
    const firing = { ...FIRING, compounds: [{ id: 'd', revision: 'd@3' }] };
    const made = { revisions, firing, compoundId: 'c' };
    expect(firedRevisions(made, 'd').compound).toBe('d@3');
    expect(firedRevisions(made, 'c').compound).toBe('c@1');
    expect(firedRevisions(made, null).compound).toBeNull();
  });

  it('were judged by eye unless a picture proposed what was taken', () => {
    const readings = [
      {
        stage: 'scrubbed',
        source: 'picture',
        rules: { retention: 0.8 },
        entries: [
          { cell: 0, outcome: 'holds', proposed: 'holds', kept: 0.93 },
          { cell: 1, outcome: 'holds', proposed: 'under', reason: 'r' },
        ],
      },
      { stage: 'scrubbed', source: 'entered', entries: [{ cell: 2, outcome: 'over' }] },
    ] as never;
    const reads = [...newestReads({ readings }, 'scrubbed').values()];
    expect(reads.map(({ byEye }) => byEye)).toEqual([false, true, true]);
    // What was kept goes with the limit that it was held against; where no picture told, nothing does.
    expect(reads.map(({ kept }) => kept)).toEqual([{ share: 0.93, limit: 0.8 }, null, null]);
  });

  it('are borne out, and stay read as they were, where somebody looked again and saw the same', () => {
    const picture = {
      stage: 'scrubbed',
      source: 'picture',
      rules: { retention: 0.8 },
      entries: [0, 1, 2].map((cell) => ({ cell, outcome: 'holds', proposed: 'holds', kept: 0.9 })),
    };
    const again = (cell: number, outcome: string) => ({
      ...{ stage: 'scrubbed', source: 'again', entries: [{ cell, outcome }] },
    });
    const said = [picture, again(0, 'holds'), again(1, 'under'), again(2, 'under'), again(2, 'holds')];
    const read = (readings: unknown[]) => [...newestReads({ readings } as never, 'scrubbed').values()];
    const borneOut = { outcome: 'holds', byEye: false, lookedAgain: true, kept: { share: 0.9, limit: 0.8 } };
    expect(read(said)).toEqual([
      borneOut,
      // Seen as something else: an eye’s word against the picture, and its number with it.
      { outcome: 'under', byEye: true, lookedAgain: true, kept: null },
      borneOut,
    ]);
    // What is read anew was not looked at again.
    expect(read([...said, picture]).map(({ lookedAgain }) => lookedAgain)).toEqual([false, false, false]);
  });
});
