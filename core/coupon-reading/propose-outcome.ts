import type { Outcome } from '../coupon/outcomes.js';
import type { contrastRanges } from '../target/card-print.js';
import type { CellMeasure } from './measure-cells.js';

/** Limits by which an outcome is proposed. All may be moved. */
export interface OutcomeRules {
  /** Share of the contrast that must be left after the scrub. */
  readonly retention: number;
  /** Contrast a mark needs, L*, by the ticket's aim. */
  readonly contrast: number;
  readonly coverage: number;
  /** A rim outside the cell above this share of its contrast is a halo. */
  readonly halo: number;
  readonly edgeUm: number;
  readonly evenness: number;
  /** A mark of more chroma than this is scorched: brown where it should be black, or yellowed where it should be white. */
  readonly chroma: number;
}

/** Least contrast of a mark, L*: dark on light 20, light on dark 12. Common practice, no source. */
const CONTRAST = { 'dark on light': 20, 'light on dark': 12 } as const;

/** Chroma of a mark without a colour of its own: a dark one may be warm, a light one shows every tint. Common practice, no source. */
const CHROMA = { 'dark on light': 10, 'light on dark': 5 } as const;
/** No pigment comes to this much: a compound with a colour of its own is not judged by its tint. */
const ANY_CHROMA = 150;

/**
 * The rules as they stand before anybody moves them. Common practice, no source.
 * @param coloured the compound leaves a mark with a colour of its own
 */
export function usualRules(tone: keyof typeof CONTRAST, coloured = false): OutcomeRules {
  return {
    retention: 0.85,
    contrast: CONTRAST[tone],
    coverage: 0.9,
    halo: 0.25,
    edgeUm: 350,
    evenness: 0.75,
    chroma: coloured ? ANY_CHROMA : CHROMA[tone],
  };
}

/** An outcome as the rules would have it, and the rule that decided. */
export interface ProposedOutcome {
  readonly outcome: Outcome;
  readonly because: string;
  /** False where another print of the card, as likely as the one taken, would give another outcome: an eye must tell. */
  readonly sure: boolean;
}

/** Signed contrast by the aim: positive where the mark is what it should be. */
export function aimedContrast(contrast: number, tone: keyof typeof CONTRAST): number {
  return tone === 'dark on light' ? contrast : -contrast;
}

/**
 * Share of a cell's contrast that is left after the scrub; null where there was none to lose (under three times the noise before).
 * @param noise spread of bare ground against itself in the picture before the scrub, L*
 */
export function retention(before: number, after: number, noise: number): number | null {
  return Math.abs(before) < 3 * noise ? null : Math.max(0, after / before);
}

/** Share of its contrast that a cell kept from one picture to the next; null where either cannot tell. */
export function keptShare(now: CellMeasure, before: CellBefore): number | null {
  const earlier = before.measure.contrast;
  return earlier === null || now.contrast === null ? null : retention(earlier, now.contrast, before.noise);
}

export interface CellBefore {
  readonly measure: CellMeasure;
  readonly noise: number;
}

/**
 * Proposes an outcome from the measures of a cell after the scrub (and before, where it was pictured then), or from those after the
 * rinse alone. Null where the picture cannot be read there.
 * @param range range of a contrast by what is known of the card, see `contrastRanges`
 */
export function proposeOutcome(
  now: CellMeasure,
  before: CellBefore | null,
  rules: OutcomeRules,
  tone: keyof typeof CONTRAST,
  range: ReturnType<typeof contrastRanges>,
): ProposedOutcome | null {
  if (now.unreadable || now.contrast === null) return null;
  const decided = decide(now, before, rules, aimedContrast(now.contrast, tone));
  const { low, high } = range(now.bareLightness!, now.lightness!);
  const ends = [aimedContrast(low, tone), aimedContrast(high, tone)];
  const sure = ends.every((contrast) => decide(now, before, rules, contrast).outcome === decided.outcome);
  if (sure) return { ...decided, sure };
  const [least, most] = [Math.min(...ends), Math.max(...ends)];
  const words = `contrast ${Math.round(least) + 0} to ${Math.round(most) + 0} by what is known of the card, limit ${rules.contrast}`;
  return { outcome: decided.outcome, because: words, sure };
}

/** @param contrast by the aim, L* */
function decide(
  now: CellMeasure,
  before: CellBefore | null,
  rules: OutcomeRules,
  contrast: number,
): Pick<ProposedOutcome, 'outcome' | 'because'> {
  const kept = before && keptShare(now, before);
  if (contrast < rules.contrast)
    return { outcome: 'under', because: `contrast ${Math.round(contrast) + 0} under ${rules.contrast}` };
  if (kept !== null && kept < rules.retention)
    return { outcome: 'under', because: `${percent(kept)} kept, under ${percent(rules.retention)}` };
  if ((now.coverage ?? 0) < rules.coverage)
    return { outcome: 'under', because: `${percent(now.coverage ?? 0)} covered, under ${percent(rules.coverage)}` };
  if (now.halo !== null && now.halo > rules.halo)
    return { outcome: 'over', because: `halo ${percent(now.halo)} of the contrast, over ${percent(rules.halo)}` };
  if (now.edgeUm !== null && now.edgeUm > rules.edgeUm)
    return { outcome: 'over', because: `edge ${now.edgeUm.toFixed(0)} µm, over ${rules.edgeUm} µm` };
  if (now.evenness !== null && now.evenness < rules.evenness)
    return { outcome: 'over', because: `evenness ${now.evenness.toFixed(2)}, under ${rules.evenness}` };
  if (now.chroma !== null && now.chroma > rules.chroma)
    return { outcome: 'over', because: `tinted, chroma ${now.chroma.toFixed(0)}, over ${rules.chroma}` };
  const limits =
    now.edgeUm === null ? 'within all limits but its edges, which this picture cannot tell' : 'within all limits';
  return { outcome: 'holds', because: kept === null ? limits : `${percent(kept)} kept, ${limits}` };
}

function percent(share: number): string {
  return `${(100 * share).toFixed(0)} %`;
}
