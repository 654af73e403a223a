import { decisive, makeFigure, supporting, type Figure } from '../evidence/figure.js';
import type { FilmBand } from './judge-film.js';

/** What is looked for on a coat. */
export const SHOWING = ['none', 'specks', 'patches'] as const;
export const AMOUNTS = ['none', 'a few', 'many'] as const;
export const LAMP_TESTS = ['no light', 'a glow', 'shines through'] as const;
export type Showing = (typeof SHOWING)[number];
export type Amount = (typeof AMOUNTS)[number];
export type LampTest = (typeof LAMP_TESTS)[number];

/** A coat as it looks: ground showing through, runs, lumps; on glass what a lamp behind it does. */
export interface VisualInspection {
  readonly showing: Showing;
  readonly runs: Amount;
  readonly lumps: Amount;
  readonly lamp: LampTest | null;
}

/** Where a look puts the film, as multiples of the band's ends. Common practice, no source. */
interface Reach {
  readonly low: number;
  readonly lowOf: 'low' | 'high';
  readonly high: number;
  readonly highOf: 'low' | 'high';
}
const reach = (low: number, lowOf: 'low' | 'high', high: number, highOf: 'low' | 'high'): Reach => ({
  low,
  lowOf,
  high,
  highOf,
});
const SHOWING_REACH: Record<Showing, Reach> = {
  none: reach(0.9, 'low', 1.6, 'high'),
  specks: reach(0.6, 'low', 1.05, 'low'),
  patches: reach(0.25, 'low', 0.9, 'low'),
};
const RUNS_REACH: Record<Amount, Reach> = {
  none: reach(0.5, 'low', 1.2, 'high'),
  'a few': reach(0.95, 'high', 1.6, 'high'),
  many: reach(1.15, 'high', 2.5, 'high'),
};
const LAMP_REACH: Record<LampTest, Reach> = {
  'no light': reach(0.95, 'low', 1.6, 'high'),
  'a glow': reach(0.7, 'low', 1.05, 'low'),
  'shines through': reach(0.25, 'low', 0.8, 'low'),
};

/** Why a coat that looks like this may not be even. */
export const INSPECTION_FINDINGS = [
  'ground shows',
  'runs',
  'lumps',
  'lamp shines through',
  'thin beside runs',
] as const;
export type InspectionFinding = (typeof INSPECTION_FINDINGS)[number];

/** A look turned into a film, and what it says of evenness. */
export interface InspectionJudgement {
  readonly film: Figure;
  readonly findings: readonly InspectionFinding[];
}

/**
 * Turns what is seen of a coat into a dry film in µm with its interval: the ranges that each look allows, taken together where
 * they overlap. Where they do not (ground showing beside runs) the coat is uneven and the film spans them all. Graded usual.
 */
export function judgeInspection(looks: VisualInspection, band: FilmBand): InspectionJudgement {
  const ends = { low: band.lowUm, high: band.highUm };
  const ranges = [
    SHOWING_REACH[looks.showing],
    RUNS_REACH[looks.runs],
    ...(looks.lamp ? [LAMP_REACH[looks.lamp]] : []),
  ];
  const lows = ranges.map((range) => range.low * ends[range.lowOf]);
  const highs = ranges.map((range) => range.high * ends[range.highOf]);
  const apart = Math.max(...lows) >= Math.min(...highs);
  const low = apart ? Math.min(...lows) : Math.max(...lows);
  const high = apart ? Math.max(...highs) : Math.min(...highs);
  const film = makeFigure({
    formula: 'judgeInspection',
    value: Math.sqrt(low * high),
    unit: 'µm',
    interval: { low, high, level: 0.9 },
    inputs: [
      decisive('ground showing', 'usual', { value: looks.showing }),
      decisive('runs', 'usual', { value: looks.runs }),
      supporting('lumps', 'usual', { value: looks.lumps }),
      ...(looks.lamp ? [decisive('lamp behind the glass', 'usual', { value: looks.lamp })] : []),
      supporting('coat band', 'stated', { value: `${band.lowUm}–${band.highUm}`, unit: 'µm' }),
    ],
  });
  return { film, findings: findingsOf(looks, apart) };
}

function findingsOf(looks: VisualInspection, apart: boolean): InspectionFinding[] {
  const findings: InspectionFinding[] = [];
  if (looks.showing !== 'none') findings.push('ground shows');
  if (looks.lamp === 'shines through' || looks.lamp === 'a glow') findings.push('lamp shines through');
  if (looks.runs !== 'none') findings.push('runs');
  if (looks.lumps !== 'none') findings.push('lumps');
  if (apart) findings.push('thin beside runs');
  return findings;
}
