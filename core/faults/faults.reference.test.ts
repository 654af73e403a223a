import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seededRandom, type Random } from '../support/random.js';
import { CAUSES, type Cause } from './causes.js';
import { faultFacts, possibleCauses } from './fault-facts.js';
import type { FaultRecord } from './fault-record.js';
import { FAULT_TESTS, offerTests } from './fault-tests.js';
import { learnFaults, shopCounts, USUAL_COUNTS_AS } from './learnt-faults.js';
import { causeChances, chanceFound, rankCauses, type FaultEvidence } from './rank-causes.js';
import { planRework, type PieceWork } from './rework.js';
import { seenOnCoupon, type ExpectedCell } from './seen-on-coupon.js';
import { contradictions, FAULTS, hiddenBy, type Fault } from './symptoms.js';
import { SOMETHING_ELSE, USUAL_SHARES, usualLink } from './usual-faults.js';

/** A piece of film-coated stainless of which nothing was out of the ordinary. */
const ORDINARY: FaultRecord = {
  coat: {
    handling: 'can be touched',
    film: { value: 9.5, low: 9, high: 10 },
    bandUm: { low: 7, high: 12 },
    findings: [],
    driedS: 400,
    dryS: 300,
    shaken: true,
    pastTime: false,
    humidity: 45,
    stored: false,
    lot: null,
  },
  air: 'off',
  extraction: 'on',
  place: { heightsRead: true, offMm: 0.1, depthMm: 1, longestMm: 50, focusFound: true, focusTicked: true },
  setting: {
    window: { bonds: 0.95, overdone: 0.02 },
    intervalToSpot: 0.7,
    speedToRecipe: 1,
    asProved: true,
    drifts: false,
  },
  lensHours: 5,
  tubeHours: 300,
  part: {
    metal: true,
    vitreous: false,
    bareTicked: true,
    notBare: null,
    groundLikeMark: false,
    degreased: true,
    lot: null,
  },
  pieces: null,
  spots: [],
  wash: { afterMinutes: 30, cooled: null, residue: 'none' },
};
type Part = { [K in keyof FaultRecord]?: Partial<FaultRecord[K]> | FaultRecord[K] };
const recordWith = (change: Part): FaultRecord =>
  Object.fromEntries(
    Object.entries(ORDINARY).map(([key, value]) => {
      const other = change[key as keyof FaultRecord];
      const merged =
        other !== null &&
        typeof other === 'object' &&
        value !== null &&
        typeof value === 'object' &&
        !Array.isArray(other);
      return [key, key in change ? (merged ? { ...(value as object), ...other } : other) : value];
    }),
  ) as unknown as FaultRecord;
const POWDER: Part = { coat: { handling: 'loose powder', findings: null } };

const evidenceOf = (seen: readonly Fault[], record: FaultRecord): FaultEvidence => ({
  seen,
  possible: possibleCauses(record),
  facts: faultFacts(record).map(({ weights }) => weights),
});
const ranked = (seen: readonly Fault[], change: Part = {}) =>
  rankCauses(evidenceOf(seen, recordWith(change))).causes.map(({ cause }) => cause);
const chances = (seen: readonly Fault[], change: Part = {}) =>
  causeChances(evidenceOf(seen, recordWith(change)), learnFaults([]));

describe('what trade practice expects first (common practice, no source)', () => {
  it('a corner lost beyond focus: the warp', () => {
    expect(ranked(['faint in one corner'], { place: { offMm: 1.8 } })[0]).toBe('warped or tilted');
  });

  it('washed off whole under a thick coat: the coat too thick, or defocus', () => {
    const thick = ranked(['washed off whole'], { coat: { film: { value: 17, low: 16, high: 18 } } });
    expect(thick[0]).toBe('coat too thick');
    const unsure = ranked(['washed off whole'], {
      coat: { film: { value: 17, low: 16, high: 18 } },
      place: { focusFound: false, focusTicked: false },
    });
    expect(unsure.slice(0, 2).sort()).toEqual(['coat too thick', 'out of focus']);
  });

  it('the shutter-drive scale, pale along one edge with air on over powder: air before tilt before all others', () => {
    const order = ranked(['pale along one edge'], {
      ...{ ...POWDER, air: 'on', place: { heightsRead: false, offMm: null, longestMm: 160, depthMm: 0.53 } },
      pieces: { made: 2, alike: 2, samePlace: true },
    });
    expect(order.slice(0, 2)).toEqual(['air blew the powder', 'warped or tilted']);
  });

  it('drifting density with powder and air on: the air', () => {
    expect(ranked(['density drifts'], { ...POWDER, air: 'on' })[0]).toBe('air blew the powder');
    // With the air off it is the hood.
    expect(ranked(['density drifts'], POWDER)[0]).toBe('extraction pulled the powder');
  });

  it('grainy at high speed: speed or interval', () => {
    const setting = {
      ...ORDINARY.setting!,
      asProved: false,
      speedToRecipe: 1.4,
      window: { bonds: 0.75, overdone: 0.01 },
    };
    expect(['too fast', 'interval too wide']).toContain(ranked(['grainy'], { setting })[0]);
    expect(ranked(['grainy'], { setting: { ...ORDINARY.setting!, intervalToSpot: 1.3 } })[0]).toBe('interval too wide');
  });

  it('a brown halo: too much energy, or a thin coat', () => {
    expect(ranked(['halo or brown']).slice(0, 2).sort()).toEqual(['coat too thin', 'too much energy']);
    expect(ranked(['halo or brown'], { coat: { film: { value: 4, low: 3.6, high: 4.4 } } })[0]).toBe('coat too thin');
  });

  it('when a mark goes under the pad: dose, focus and coat before the compound', () => {
    const order = ranked(['lost under the pad'], { setting: { ...ORDINARY.setting!, asProved: false, window: null } });
    const at = (cause: Cause) => order.indexOf(cause);
    expect(Math.max(at('too little energy'), at('out of focus'), at('coat too thick'))).toBeGreaterThanOrEqual(0);
    expect(at('too little energy')).toBeLessThan(at('compound off'));
  });

  it.each([
    [
      'glass cracked by a hot wash',
      ['chipped or crazed'],
      'washed while hot',
      { part: { metal: false, vitreous: true }, wash: { afterMinutes: 3, cooled: false } },
    ],
    [
      'patchy where it was touched',
      ['patchy'],
      'touched or greasy',
      { coat: { findings: ['touched'] }, pieces: { made: 6, alike: 1, samePlace: false } },
    ],
    ['washed off whole from a lacquered blank', ['washed off whole'], 'not bare metal', { part: { notBare: 0.9 } }],
    [
      'pale marks of one blank lot',
      ['pale all over'],
      'unsuitable alloy',
      {
        part: { lot: { lot: 'B9', good: 2, made: 20, othersGood: 96, othersMade: 100 } },
        pieces: { made: 20, alike: 18, samePlace: false },
      },
    ],
    ['residue', ['residue left'], 'rinsed too little', {}],
    ['out of place', ['out of place'], 'moved or misplaced', {}],
  ] as const)('%s', (_, seen, cause, change) => {
    expect(ranked(seen, change as Part)[0]).toBe(cause);
  });

  it('two causes at once: a thin coat along a warped corner', () => {
    const { causes, pair } = rankCauses(
      evidenceOf(
        ['faint in one corner', 'halo or brown'],
        recordWith({ place: { offMm: 2 }, coat: { film: { value: 4, low: 3.6, high: 4.4 } } }),
      ),
    );
    expect(
      causes
        .slice(0, 2)
        .map(({ cause }) => cause)
        .sort(),
    ).toEqual(['coat too thin', 'warped or tilted']);
    expect([...pair!.causes].sort()).toEqual(['coat too thin', 'warped or tilted']);
    expect(pair!.chance).toBeGreaterThan(0.5);
  });
});

/** Bayes’ rule over every set of causes of any size up to three, written out plainly. */
function byEnumeration(evidence: FaultEvidence): ReadonlyMap<Cause, number> {
  const all = CAUSES.filter((cause) => (evidence.possible ?? CAUSES).includes(cause));
  const total = CAUSES.reduce((sum, cause) => sum + USUAL_SHARES[cause], 0);
  const hidden = hiddenBy(evidence.seen);
  const sets = all.flatMap((a, i) => [
    [a],
    ...all.slice(i + 1).flatMap((b, j) => [[a, b], ...all.slice(i + j + 2).map((c) => [a, b, c])]),
  ]);
  const weigh = (set: readonly Cause[]) => {
    let likely = 1;
    for (const cause of set) {
      likely *= (0.3 * USUAL_SHARES[cause]) / total;
      for (const fact of evidence.facts ?? []) likely *= fact[cause] ?? 1;
    }
    for (const fault of FAULTS) {
      let silent = 0.995;
      for (const cause of set) silent *= 1 - usualLink(cause, fault);
      if (evidence.seen.includes(fault)) likely *= 1 - silent;
      else if (!hidden.includes(fault)) likely *= 1 - 0.7 * (1 - silent);
    }
    for (const { finds, falseAlarm, found } of evidence.tests ?? []) {
      let blind = 1 - falseAlarm;
      for (const cause of set) blind *= 1 - (finds[cause] ?? 0);
      likely *= found ? 1 - blind : blind;
    }
    return likely;
  };
  const sum = sets.reduce((s, set) => s + weigh(set), 0);
  return new Map(
    all.map((cause) => [cause, sets.filter((set) => set.includes(cause)).reduce((s, set) => s + weigh(set), 0) / sum]),
  );
}

describe('Bayes’ rule and noisy-or', () => {
  it('agrees with plain enumeration, whatever was seen, said and tested', () => {
    const seen = fc.subarray([...FAULTS], { minLength: 1, maxLength: 3 });
    const possible = fc.subarray([...CAUSES], { minLength: 3, maxLength: 9 });
    const fact = fc.record({ cause: fc.constantFrom(...CAUSES), weight: fc.double({ min: 0.2, max: 5, noNaN: true }) });
    fc.assert(
      fc.property(
        seen,
        possible,
        fc.uniqueArray(fact, { maxLength: 3, selector: ({ cause }) => cause }),
        fc.boolean(),
        (faults, causes, facts, found) => {
          const evidence: FaultEvidence = {
            ...{ seen: faults, possible: causes, facts: facts.map(({ cause, weight }) => ({ [cause]: weight })) },
            tests: [{ ...FAULT_TESTS.heights, found }],
          };
          const fast = causeChances(evidence, learnFaults([]));
          for (const [cause, chance] of byEnumeration(evidence)) expect(fast.get(cause)).toBeCloseTo(chance, 9);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('by hand: two causes, one fault', () => {
    // Air 5 and tilt 8 of a hundred; each joins at 0.3; the edge shows at 0.4 and 0.35, and stays silent by itself at 0.995.
    const only: FaultEvidence = {
      seen: ['pale along one edge'],
      possible: ['air blew the powder', 'warped or tilted'],
    };
    const silent = (cause: Cause) =>
      FAULTS.reduce(
        (p, f) => (f === 'pale along one edge' ? p : p * (1 - 0.7 * (1 - 0.995 * (1 - usualLink(cause, f))))),
        1,
      );
    const [air, tilt] = [
      0.015 * (1 - 0.995 * 0.6) * silent('air blew the powder'),
      0.024 * (1 - 0.995 * 0.65) * silent('warped or tilted'),
    ];
    const bothSilent = FAULTS.reduce(
      (p, f) =>
        f === 'pale along one edge'
          ? p
          : p *
            (1 -
              0.7 * (1 - 0.995 * (1 - usualLink('air blew the powder', f)) * (1 - usualLink('warped or tilted', f)))),
      1,
    );
    const both = 0.015 * 0.024 * (1 - 0.995 * 0.6 * 0.65) * bothSilent;
    const fast = causeChances(only, learnFaults([]));
    expect(fast.get('air blew the powder')).toBeCloseTo((air + both) / (air + tilt + both), 10);
  });

  it('a fact for a cause never makes it less likely', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...FAULTS),
        fc.constantFrom(...CAUSES),
        fc.double({ min: 1, max: 8, noNaN: true }),
        (fault, cause, weight) => {
          const with_ = (w: number) =>
            causeChances({ seen: [fault], facts: [{ [cause]: w }] }, learnFaults([])).get(cause)!;
          expect(with_(weight)).toBeGreaterThanOrEqual(with_(1) - 1e-12);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('finds again what a world of its own tables made, as often as it says (calibration over drawn cases)', () => {
    const random = seededRandom(5);
    const bins = Array.from({ length: 5 }, () => ({ said: 0, was: 0, n: 0 }));
    for (let i = 0; i < 3000; i += 1) {
      const world = drawCase(random);
      if (!world.seen.length) continue;
      for (const [cause, chance] of causeChances({ seen: world.seen }, learnFaults([]))) {
        const bin = bins[Math.min(4, Math.floor(5 * chance))]!;
        bin.said += chance;
        bin.was += world.causes.includes(cause) ? 1 : 0;
        bin.n += 1;
      }
    }
    for (const { said, was, n } of bins.filter(({ n }) => n > 60)) expect(Math.abs(said - was) / n).toBeLessThan(0.06);
  });
});

/** A case as the model has it: causes joining by their odds, none ruled out, faults that show and are pressed. */
function drawCase(random: Random): { seen: Fault[]; causes: Cause[] } {
  for (;;) {
    const causes = CAUSES.filter((cause) => {
      const odds = (0.3 * USUAL_SHARES[cause]) / 100;
      return random() < odds / (1 + odds);
    });
    if (!causes.length || causes.length > 3) continue;
    const shows = FAULTS.filter(
      (fault) => random() > causes.reduce((p, cause) => p * (1 - usualLink(cause, fault)), 0.995),
    );
    const looked = shows.filter(() => random() < 0.7);
    return {
      causes,
      seen: looked.filter((fault) => !hiddenBy(looked).length || fault === 'washed off whole' || !GONE.includes(fault)),
    };
  }
}
const GONE = hiddenBy(['washed off whole']);

describe('what a shop learns', () => {
  const pale: Fault[] = ['pale along one edge'];
  const extraction = { faults: pale, causes: ['extraction pulled the powder'] as Cause[] };

  it('counts as a Dirichlet does: usual practice as twenty cases, each case one', () => {
    const { counts } = learnFaults([
      extraction,
      extraction,
      { faults: pale, causes: ['warped or tilted', 'uneven spray'] },
    ]);
    expect(counts.get('extraction pulled the powder')).toBeCloseTo((20 * 3) / 100 + 2, 12);
    expect(counts.get('warped or tilted')).toBeCloseTo((20 * 8) / 100 + 0.5, 12);
    expect([...counts.values()].reduce((a, b) => a + b)).toBeCloseTo(USUAL_COUNTS_AS.shares + 3, 12);
  });

  it('moves to what it found again and again, and says how often', () => {
    const record = recordWith({ ...POWDER, air: 'off' });
    const before = causeChances(evidenceOf(pale, record), learnFaults([])).get('extraction pulled the powder')!;
    const cases = [extraction, extraction, extraction, extraction];
    const after = causeChances(evidenceOf(pale, record), learnFaults(cases)).get('extraction pulled the powder')!;
    expect(after).toBeGreaterThan(before + 0.15);
    expect(shopCounts(cases, pale)).toEqual(new Map([['extraction pulled the powder', 4]]));
  });

  it('learns how a cause looks from cases it was alone in, and not what could not be seen', () => {
    const gone = learnFaults([{ faults: ['washed off whole'], causes: ['weak beam'] }]).links.get('weak beam')!;
    expect(gone.get('washed off whole')).toEqual({ seen: 8 * 0.3 + 1, not: 8 * 0.7 });
    expect(gone.get('pale all over')).toEqual({ seen: 8 * 0.45, not: 8 * 0.55 });
    expect(gone.get('out of place')).toEqual({ seen: 0, not: 9 });
    const two = learnFaults([{ faults: pale, causes: ['weak beam', 'uneven spray'] }]).links.get('weak beam')!;
    expect(two.get('pale along one edge')).toEqual({ seen: 0, not: 8 });
  });

  it('refuses a case without a cause', () => {
    expect(() => learnFaults([{ faults: pale, causes: [] }])).toThrow(/names its cause/);
  });
});

describe('a quick test', () => {
  const record = recordWith({
    ...POWDER,
    air: 'on',
    place: { heightsRead: false, offMm: null, longestMm: 160, depthMm: 0.53 },
  });
  const evidence = evidenceOf(['pale along one edge'], record);
  const knowledge = learnFaults([]);
  const offers = () => offerTests(evidence, knowledge, { ranking: rankCauses(evidence).causes, record, made: [] });

  it('tells the best two apart: quick ones without a blank before bars on scrap', () => {
    const keys = offers().map(({ key }) => key);
    expect(['heights', 'nozzle']).toContain(keys[0]);
    expect(keys).toContain('air bars');
    expect(keys.indexOf('air bars')).toBeGreaterThan(0);
  });

  it('says what each result would do: the chances after it, weighed by how likely it is, come to what they are now', () => {
    const now = causeChances(evidence, knowledge);
    for (const { key, outcomes } of offers()) {
      const found = chanceFound(evidence, FAULT_TESTS[key], knowledge);
      expect(outcomes[0].chance).toBeCloseTo(found, 12);
      const after = [true, false].map((result) =>
        causeChances({ ...evidence, tests: [{ ...FAULT_TESTS[key], found: result }] }, knowledge),
      );
      for (const [cause, chance] of now)
        expect(found * after[0]!.get(cause)! + (1 - found) * after[1]!.get(cause)!).toBeCloseTo(chance, 9);
    }
  });

  it('offers none that cannot be made on this part, and none twice', () => {
    const bare = recordWith({ coat: null });
    const of = evidenceOf(['pale all over'], bare);
    const keys = offerTests(of, knowledge, { ranking: rankCauses(of).causes, record: bare, made: ['meter'] }).map(
      ({ key }) => key,
    );
    expect(keys).not.toContain('air bars');
    expect(keys).not.toContain('meter');
  });
});

describe('ways out', () => {
  const work: PieceWork = {
    ...{ coatMinutes: 4, dryMinutes: 6, markMinutes: 10, cleanMinutes: 3, stripMinutes: 15, placeMinutes: 3 },
    ...{
      compoundMinor: 80,
      compoundG: 4,
      blankMinor: 500,
      labourMinorPerMinute: 60,
      laserMinorPerMinute: 20,
      regionShare: 0.25,
    },
  };
  const ranking = rankCauses({ seen: ['pale along one edge'], facts: [{ 'air blew the powder': 8 }] }).causes;
  const plan = (put: readonly Cause[], before = {}) =>
    planRework(work, { seen: ['pale along one edge'], ranking, put, before });

  it('cost what they take', () => {
    const [region, , strip, accept, scrap] = plan([]);
    expect(region).toMatchObject({ handsMinutes: 12.5, minutes: 18.5, compoundG: 1 });
    expect(region!.costMinor).toBeCloseTo(20 + 12.5 * 60 + 2.5 * 20, 9);
    expect(strip!.costMinor).toBeCloseTo(80 + 35 * 60 + 10 * 20, 9);
    expect(accept).toMatchObject({ minutes: 0, costMinor: 0, chance: null });
    expect(scrap!.costMinor).toBeCloseTo(500 + 80 + 20 * 60 + 200, 9);
  });

  it('come out oftener once the cause is put right, and as the shop’s own pieces did', () => {
    const chance = (put: readonly Cause[], before = {}) => plan(put, before)[0]!.chance!.value;
    expect(chance(['air blew the powder'])).toBeGreaterThan(chance([]) + 0.2);
    const lost = { 'redo the region': { good: 0, made: 6 } };
    expect(chance(['air blew the powder'], lost)).toBeLessThan(0.6 * chance(['air blew the powder']));
  });

  it('are not offered where they mend nothing', () => {
    const cracked = planRework(work, { seen: ['chipped or crazed'], ranking, put: [], before: {} });
    expect(cracked.filter(({ not }) => !not).map(({ way }) => way)).toEqual(['accept', 'scrap']);
  });
});

describe('what cannot be', () => {
  it('says so of a mark that is gone and grainy', () => {
    expect(contradictions(['washed off whole', 'grainy'])).toHaveLength(1);
    expect(contradictions(['halo or brown', 'grainy'])).toEqual([]);
    expect(() => rankCauses({ seen: [] })).toThrow(/looks like/);
    expect(() => rankCauses({ seen: ['grainy'], possible: [] })).toThrow(/No cause/);
  });

  it('keeps “something else” on every list, and first where nothing fits', () => {
    const odd = chances(['tinted', 'out of place', 'chipped or crazed', 'faint in one corner'], {
      part: { metal: true },
    });
    expect(odd.get('something else')).toBeGreaterThan(0.05);
    expect(SOMETHING_ELSE).toBeGreaterThan(0);
  });

  it('holds a coat that was not fired against what coats it only', () => {
    expect(possibleCauses(recordWith({ setting: null }))).not.toContain('too little energy');
  });
});

describe('a coupon that is lost towards one side', () => {
  const cells = (outcome: (x: number, y: number, random: Random) => ExpectedCell['outcome']): ExpectedCell[] => {
    const random = seededRandom(3);
    return Array.from({ length: 48 }, (_, i) => {
      const [x, y] = [((i % 8) + 0.5) / 8, (Math.floor(i / 8) + 0.5) / 6];
      return { x, y, holds: 0.5, outcome: outcome(x, y, random) };
    });
  };

  it('is told from one that follows its settings', () => {
    expect(seenOnCoupon(cells((_x, _y, random) => (random() < 0.5 ? 'holds' : 'under')))).toEqual([]);
    expect(seenOnCoupon(cells((x) => (x > 0.4 ? 'holds' : 'under')))[0]).toMatchObject({
      fault: 'pale along one edge',
      spot: { x: 0.1, y: 0.5 },
    });
    expect(seenOnCoupon(cells((x, y) => (x + y > 0.9 ? 'holds' : 'under')))[0]).toMatchObject({
      fault: 'faint in one corner',
    });
    expect(seenOnCoupon(cells(() => 'under'))[0]!.fault).toBe('washed off whole');
    expect(seenOnCoupon(cells(() => 'over'))[0]!.fault).toBe('halo or brown');
    expect(seenOnCoupon(cells(() => 'under').slice(0, 5))).toEqual([]);
  });

  it('raises a false alarm on less than one coupon in a hundred', () => {
    const random = seededRandom(8);
    const alarms = Array.from(
      { length: 400 },
      () => seenOnCoupon(cells(() => (random() < 0.5 ? 'holds' : 'under'))).length,
    );
    expect(alarms.reduce((a, b) => a + b) / 400).toBeLessThan(0.012);
  });
});
