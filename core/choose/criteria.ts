/** What a method and compound are compared by. The first seven are measured or computed, the last three scored by the shop. */
export const CRITERIA = [
  'contrast',
  'rate',
  'evenness',
  'cleaning',
  'handling',
  'durability',
  'cost',
  'availability',
  'help',
  'trackRecord',
] as const;
export type Criterion = (typeof CRITERIA)[number];
export const SOFT_CRITERIA: readonly Criterion[] = ['availability', 'help', 'trackRecord'];

/**
 * How a criterion's own unit becomes a value score. `linear`: 0 to 1 between two ends of a fixed scale. `ratio`: 1 at the best of the
 * options in hand, 0 a factor `span` worse; unit and currency fall out.
 */
export type ValueScale =
  | { readonly kind: 'linear'; readonly worst: number; readonly best: number }
  | { readonly kind: 'ratio'; readonly better: 'more' | 'less'; readonly span: number };

export interface CriterionInfo {
  readonly label: string;
  readonly unit: string;
  readonly means: string;
  readonly scale: ValueScale;
  /** Steps of an eye scale; readings of it are rounded to this. 0 where it is continuous. */
  readonly step: number;
  /** The range of anything nobody measured yet, in the criterion's unit; null for ratio scales, which take it from the options. */
  readonly whole: readonly [number, number] | null;
}

const steps = (worst: number, best: number): ValueScale => ({ kind: 'linear', worst, best });
const SCORE = { unit: 'of 10', scale: steps(0, 10), step: 1, whole: [0, 10] } as const;

export const CRITERION_INFO: Record<Criterion, CriterionInfo> = {
  contrast: {
    label: 'contrast',
    unit: 'of 5',
    means: 'contrast by eye the way the ticket wants it: a mark of the other sign counts below 0',
    scale: steps(0, 5),
    step: 1,
    whole: [0, 5],
  },
  rate: {
    label: 'fast',
    unit: 'cm²/min',
    means: 'area marked a minute at the quickest setting that holds, turnarounds of this mark included',
    scale: { kind: 'ratio', better: 'more', span: 10 },
    step: 0,
    whole: null,
  },
  evenness: {
    label: 'even',
    unit: 'of 5',
    means: 'evenness of judged runs, blotched 1 to perfectly even 5',
    scale: steps(1, 5),
    step: 1,
    whole: [1, 5],
  },
  cleaning: {
    label: 'easy to clean',
    unit: 'min a piece',
    means: 'minutes of cleaning a piece',
    scale: { kind: 'ratio', better: 'less', span: 20 },
    step: 0,
    whole: null,
  },
  handling: {
    label: 'can wait',
    unit: 'of 10',
    means: 'touch and storage of the dry coat: 6 for touch, up to 4 more for days it keeps',
    scale: steps(0, 10),
    step: 0,
    whole: [0, 10],
  },
  durability: {
    label: 'lasts',
    unit: 'of tests',
    means: 'share of durability tests stood: no change 1, slightly paler ½, lost 0',
    scale: steps(0, 1),
    step: 0,
    whole: [0, 1],
  },
  cost: {
    label: 'price a piece',
    unit: '',
    means: 'compound, thinner, laser minutes and hands-on minutes of a piece, over the share that comes out good',
    scale: { kind: 'ratio', better: 'less', span: 10 },
    step: 0,
    whole: null,
  },
  availability: { ...SCORE, label: 'to be had', means: 'where it is sold and how soon, scored by the shop' },
  help: { ...SCORE, label: 'maker’s help', means: 'help its maker gives off the label, scored by the shop' },
  trackRecord: { ...SCORE, label: 'track record', means: 'how long it has been relied on, scored by the shop' },
};

/** Weights of a profile, 0 or more each; only their proportions count. */
export type Weights = Readonly<Record<Criterion, number>>;

/** Touch and storage of a dry coat on 0-10. @param shelfLifeDays days a dry coat keeps; null for no limit */
export function handlingScore(
  handling: 'can be touched' | 'rubs off' | 'loose powder',
  shelfLifeDays: number | null,
): number {
  const touch = { 'can be touched': 6, 'rubs off': 2.5, 'loose powder': 0 }[handling];
  const days = shelfLifeDays === null ? 30 : Math.min(30, Math.max(0, shelfLifeDays));
  return touch + (4 * Math.log1p(days)) / Math.log1p(30);
}
