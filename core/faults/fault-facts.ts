import type { Ranged } from '../cost/cost-per-piece.js';
import { fisherExact } from '../statistics/fisher-exact.js';
import { COAT_CAUSES, COATING_CAUSES, CAUSES, type Cause } from './causes.js';
import type { CoatRecord, FaultRecord, LotRecord } from './fault-record.js';
import type { CauseWeights } from './rank-causes.js';

/** Something the record says, in words, and what it changes. */
export interface FaultFact {
  readonly code: string;
  readonly words: string;
  readonly weights: CauseWeights;
}

type Rule = (record: FaultRecord) => FaultFact | null;

/** Causes that can be at work: none of a coat where there is none, none of the fire where it was not fired, no hot wash but of glass. */
export function possibleCauses({ coat, setting, part }: FaultRecord): Cause[] {
  if (!setting) return [...COATING_CAUSES];
  return CAUSES.filter((cause) => {
    if (!coat && COAT_CAUSES.includes(cause)) return false;
    if (cause === 'washed while hot') return part.vitreous;
    return part.metal || (cause !== 'not bare metal' && cause !== 'unsuitable alloy');
  });
}

/**
 * What a record says of the causes, each fact with the weights it carries: how many times as often it is found with the cause at work as
 * without. All weights are common practice, no source, but those of lots (counted) and of the window (its own chances).
 */
export function faultFacts(record: FaultRecord): FaultFact[] {
  return RULES.map((rule) => rule(record)).filter((fact) => fact !== null);
}

const fact = (code: string, words: string, weights: CauseWeights): FaultFact => ({ code, words, weights });

const air: Rule = ({ air: stood, coat }) => {
  if (!coat || stood === null) return null;
  if (stood === 'off') return fact('air', 'air off, as it was said', { 'air blew the powder': 0.1 });
  if (coat.handling === 'loose powder') return fact('air', 'air on, over loose powder', { 'air blew the powder': 5 });
  return fact('air', 'air on, over a film', { 'air blew the powder': 0.3 });
};

const airUnsaid: Rule = ({ air: stood, coat }) =>
  coat?.handling === 'loose powder' && stood === null
    ? fact('air-unsaid', 'nobody noted how the air stood', { 'air blew the powder': 1.3 })
    : null;

const extraction: Rule = ({ extraction: stood, coat }) =>
  coat && stood === 'off'
    ? fact('extraction', 'extraction off, as it was said', { 'extraction pulled the powder': 0.1 })
    : null;

const powder: Rule = ({ coat }) => {
  if (!coat) return null;
  if (coat.handling === 'loose powder')
    return fact('powder', 'it dries to loose powder', {
      ...{ 'air blew the powder': 2, 'extraction pulled the powder': 2, 'touched or greasy': 1.4 },
    });
  if (coat.handling === 'rubs off') return fact('powder', 'the dry coat rubs off', { 'touched or greasy': 1.3 });
  return fact('powder', 'it dries to a film', { 'air blew the powder': 0.4, 'extraction pulled the powder': 0.3 });
};

const dryCoat: Rule = ({ coat }) => {
  if (!coat) return null;
  if (coat.driedS === null) return fact('dry', 'nobody clocked its drying', { 'fired before it was dry': 1.6 });
  const share = coat.driedS / coat.dryS;
  if (share < 0.9)
    return fact('dry', `dried ${clock(coat.driedS)} of ${clock(coat.dryS)}`, { 'fired before it was dry': 5 });
  return fact('dry', `dried ${clock(coat.driedS)} until its gloss was gone`, { 'fired before it was dry': 0.25 });
};

function clock(seconds: number): string {
  return `${Math.floor(seconds / 60)}:${String(Math.round(seconds % 60)).padStart(2, '0')}`;
}

const film: Rule = ({ coat }) => {
  if (!coat) return null;
  if (!coat.film) return fact('film', 'the coat was not weighed', { 'coat too thick': 1.3, 'coat too thin': 1.3 });
  const { low, high } = coat.bandUm;
  const [under, above] = [chanceBelow(coat.film, low), 1 - chanceBelow(coat.film, high)];
  const words = `film ${coat.film.value.toPrecision(3)} µm, band ${low} to ${high}`;
  return fact('film', words, { 'coat too thin': bandWeight(under), 'coat too thick': bandWeight(above) });
};

/** Of a film that lies out of its band by that chance: for the cause where it does, against it where it does not. */
const bandWeight = (out: number) => 6 ** out * 0.4 ** (1 - out);

/** Chance that a value lies below a limit: normal, by its nine-of-ten interval. */
function chanceBelow({ value, low, high }: Ranged, limit: number): number {
  const sd = Math.max((high - low) / 3.29, 1e-9 * Math.abs(value) + 1e-12);
  return logistic((1.702 * (limit - value)) / sd);
}

/** Logistic curve; 1.702 z follows the normal distribution within 0.01 (Camilli 1994). */
const logistic = (x: number) => 1 / (1 + Math.exp(-Math.max(-40, Math.min(40, x))));

const FINDING_WEIGHTS: Record<NonNullable<CoatRecord['findings']>[number], readonly [string, CauseWeights]> = {
  thin: ['thin places', { 'uneven spray': 3, 'coat too thin': 2 }],
  thick: ['thick places', { 'uneven spray': 3, 'coat too thick': 2 }],
  lumps: ['lumps', { 'lumps in the coat': 5 }],
  runs: ['runs', { 'uneven spray': 2.5, 'coat too thick': 2 }],
  touched: ['a finger’s mark', { 'touched or greasy': 5 }],
  brush: ['brush marks', { 'uneven spray': 3 }],
};

const looked: Rule = ({ coat }) => {
  if (!coat || coat.findings === null) return null;
  if (!coat.findings.length)
    return fact('looked', 'the dry coat looked even', {
      ...{ 'uneven spray': 0.35, 'lumps in the coat': 0.35, 'touched or greasy': 0.6 },
    });
  const found = coat.findings.map((finding) => FINDING_WEIGHTS[finding]);
  const weights: Partial<Record<Cause, number>> = {};
  for (const [, of] of found)
    for (const [cause, weight] of Object.entries(of) as [Cause, number][])
      weights[cause] = Math.max(weights[cause] ?? 1, weight);
  return fact('looked', `the dry coat had ${found.map(([words]) => words).join(', ')}`, weights);
};

const shaken: Rule = ({ coat }) =>
  coat?.shaken ? fact('shaken', 'shaken by the clock', { 'lumps in the coat': 0.5, 'compound off': 0.8 }) : null;

const past: Rule = ({ coat }) =>
  coat?.pastTime ? fact('past', 'used after its time', { 'compound off': 3, 'lumps in the coat': 1.6 }) : null;

const humid: Rule = ({ coat }) =>
  coat?.humidity && coat.humidity > 65
    ? fact('humid', `sprayed at ${Math.round(coat.humidity)} % humidity`, {
        'fired before it was dry': 1.6,
        'uneven spray': 1.3,
      })
    : null;

const stored: Rule = ({ coat }) =>
  coat?.stored ? fact('stored', 'it lay coated on the shelf', { 'touched or greasy': 1.6 }) : null;

const heights: Rule = ({ place }) => {
  if (!place.heightsRead || place.offMm === null) {
    const weights = { 'warped or tilted': place.longestMm > 100 ? 1.6 : 1.2 };
    return fact('heights', `no heights read, ${Math.round(place.longestMm)} mm long`, weights);
  }
  const share = Math.abs(place.offMm) / place.depthMm;
  const words = `there ${place.offMm.toFixed(2)} mm off focus, depth ± ${place.depthMm.toFixed(2)} mm`;
  if (share > 1) return fact('heights', words, { 'warped or tilted': Math.min(10, 3 * share) });
  return fact('heights', words, { 'warped or tilted': share < 0.6 ? 0.2 : 0.6 });
};

const focus: Rule = ({ place, setting }) => {
  if (!setting) return null;
  if (place.focusFound && place.focusTicked)
    return fact('focus', 'focus found, and looked at again', { 'out of focus': 0.4 });
  if (place.focusFound) return fact('focus', 'focus found on this ticket', { 'out of focus': 0.6 });
  return fact('focus', 'nobody noted how the focus was found', { 'out of focus': 1.5 });
};

const dose: Rule = ({ setting }) => {
  if (!setting?.window) return null;
  const { bonds, overdone } = setting.window;
  const words = `by the window it bonds ${tens(bonds)} times in 10, is overdone ${tens(overdone)}`;
  return fact('window', words, {
    ...{ 'too little energy': edgeWeight(1 - bonds), 'too fast': edgeWeight(1 - bonds) ** 0.5 },
    'too much energy': edgeWeight(overdone),
  });
};

const tens = (share: number) => Math.round(10 * share);
/** Of a setting that fails by that chance in its window: evenly for and against at one in seven. */
const edgeWeight = (fails: number) => Math.min(8, Math.max(0.3, (fails + 0.03) / 0.17));

const unproved: Rule = ({ setting }) => {
  if (!setting || setting.asProved === null) return null;
  if (setting.asProved)
    return fact('proved', 'the setting is its proved recipe’s', {
      'too little energy': 0.5,
      'too much energy': 0.6,
      'too fast': 0.5,
      'interval too wide': 0.4,
    });
  return setting.window
    ? null
    : fact('proved', 'no coupon proved this setting', {
        'too little energy': 1.8,
        'too much energy': 1.5,
        'too fast': 1.4,
      });
};

const faster: Rule = ({ setting }) => {
  const share = setting?.speedToRecipe ?? 1;
  if (share > 1.05)
    return fact('speed', `${percent(share - 1)} faster than its recipe`, { 'too fast': 4, 'too little energy': 3 });
  if (share < 0.95)
    return fact('speed', `${percent(1 - share)} slower than its recipe`, { 'too much energy': 3, 'too fast': 0.4 });
  return null;
};

const percent = (share: number) => `${Math.round(100 * share)} %`;

const lines: Rule = ({ setting }) => {
  if (!setting) return null;
  const { intervalToSpot } = setting;
  const words = `lines ${intervalToSpot.toFixed(2)} of a spot apart`;
  if (intervalToSpot > 1) return fact('lines', words, { 'interval too wide': 5 });
  return intervalToSpot < 0.6 ? fact('lines', words, { 'interval too wide': 0.3 }) : null;
};

const drifting: Rule = ({ setting }) =>
  setting?.drifts
    ? fact('drift', 'runs of this recipe drift', { 'weak beam': 2, 'compound off': 1.8, 'unsuitable alloy': 1.6 })
    : null;

/** Hours under the beam after which a lens is usually looked at, and a tube has usually lost power. Common practice, no source. */
const LENS_HOURS = 40;
const TUBE_HOURS = 1500;

const lens: Rule = ({ lensHours }) => {
  if (lensHours === null) return null;
  const words = `lens cleaned ${lensHours < 10 ? lensHours.toFixed(1) : Math.round(lensHours)} h of beam ago`;
  return fact('lens', words, { 'weak beam': lensHours > LENS_HOURS ? 2.5 : lensHours < 8 ? 0.5 : 1 });
};

const tube: Rule = ({ tubeHours }) =>
  tubeHours !== null && tubeHours > TUBE_HOURS
    ? fact('tube', `${Math.round(tubeHours)} h on the tube`, { 'weak beam': 2 })
    : null;

const bare: Rule = ({ part }) => {
  if (!part.metal) return null;
  if (part.notBare !== null) {
    const weight = Math.min(10, Math.max(0.15, part.notBare / (1 - Math.min(0.95, part.notBare)) / 0.3));
    return fact('bare', `tested: not bare ${tens(part.notBare)} times in 10`, { 'not bare metal': weight });
  }
  if (part.bareTicked === null) return null;
  return part.bareTicked
    ? fact('bare', 'somebody saw that it is bare', { 'not bare metal': 0.35 })
    : fact('bare', 'nobody looked whether it is bare', { 'not bare metal': 1.8 });
};

const greasy: Rule = ({ part }) =>
  part.degreased
    ? fact('clean', 'ticked as degreased and dry', { 'touched or greasy': 0.7 })
    : fact('clean', 'nobody ticked that it was degreased', { 'touched or greasy': 1.6 });

const ground: Rule = ({ part }) =>
  part.groundLikeMark
    ? fact('ground', 'its ground has the tone that the mark should have', { 'ground too near the mark': 8 })
    : fact('ground', 'mark and ground are of unlike tone', { 'ground too near the mark': 0.4 });

function lotFact(code: string, what: string, lot: LotRecord | null, cause: Cause): FaultFact | null {
  if (!lot || lot.made < 3 || lot.othersMade < 3) return null;
  const bad = (made: number, good: number) => (made - good + 0.5) / (made + 1);
  const ratio = bad(lot.made, lot.good) / bad(lot.othersMade, lot.othersGood);
  const chance = fisherExact({
    ...{ outWith: lot.made - lot.good, runsWith: lot.made },
    ...{ outWithout: lot.othersMade - lot.othersGood, runsWithout: lot.othersMade },
  });
  const weight = ratio > 1 && chance < 0.1 ? Math.min(6, ratio) : ratio < 1 ? Math.max(0.5, ratio) : 1;
  const words = `${what} ${lot.lot}: ${lot.good} of ${lot.made} good, others ${lot.othersGood} of ${lot.othersMade}`;
  return weight === 1 ? null : fact(code, words, { [cause]: weight });
}

const canLot: Rule = ({ coat }) => lotFact('can-lot', 'can lot', coat?.lot ?? null, 'compound off');
const blankLot: Rule = ({ part }) => lotFact('blank-lot', 'blanks of lot', part.lot, 'unsuitable alloy');

const together: Rule = ({ pieces }) => {
  if (!pieces || pieces.made < 2) return null;
  const { made, alike, samePlace } = pieces;
  const words = `${alike} of ${made} pieces look so${samePlace && alike > 1 ? ', at the same place' : ''}`;
  if (alike === 1)
    return fact('others', words, {
      ...{ 'touched or greasy': 2, 'moved or misplaced': 2, 'warped or tilted': 1.5, 'uneven spray': 1.4 },
      ...{ 'too little energy': 0.4, 'too much energy': 0.5, 'weak beam': 0.3, 'interval too wide': 0.2 },
      ...{ 'unsuitable alloy': 0.4, 'out of focus': 0.6, 'compound off': 0.4, 'too fast': 0.3 },
    });
  if (alike / made < 0.7) return null;
  return fact('others', words, {
    ...{ 'touched or greasy': samePlace ? 0.45 : 0.6, 'moved or misplaced': 0.7 },
    ...(samePlace ? { 'air blew the powder': 1.5, 'extraction pulled the powder': 1.3 } : {}),
  });
};

const washed: Rule = ({ wash, part }) => {
  if (!part.vitreous || wash.afterMinutes === null) return null;
  if (wash.cooled) return fact('cooled', 'cooled under its clock before the wash', { 'washed while hot': 0.1 });
  const words = `washed ${Math.round(wash.afterMinutes)} min after it was fired`;
  return fact('cooled', words, { 'washed while hot': wash.afterMinutes < 15 ? 5 : 0.6 });
};

const residue: Rule = ({ wash }) =>
  wash.residue && wash.residue !== 'none'
    ? fact('residue', `${wash.residue} residue noted at Clean`, { 'rinsed too little': 2 })
    : null;

const RULES: readonly Rule[] = [
  ...[air, airUnsaid, extraction, powder, film, looked, dryCoat, shaken, past, humid, stored, canLot],
  ...[heights, focus, dose, unproved, faster, lines, drifting, lens, tube],
  ...[bare, greasy, ground, blankLot, together, washed, residue],
];
