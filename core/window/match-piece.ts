import { ciede2000 } from '../imaging/ciede2000.js';
import type { Lab } from '../imaging/colour.js';
import { seededRandom, standardNormal } from '../support/random.js';
import {
  measureField,
  MEASURES,
  type Expected,
  type Measure,
  type MeasuredCell,
  type MeasureField,
} from './measure-field.js';
import { SURE } from './promise.js';
import { boundariesAt } from './fit-window.js';
import { judged, tested, type SettingChoice, type SettingJob } from './setting-search.js';
import { triedPlaces } from './tried.js';
import type { WindowFit } from './window-fit.js';
import type { WindowPoint } from './window-terms.js';

/** A mark that is to be matched. */
export interface MatchTarget {
  readonly mark: Lab;
  readonly bare: Lab;
  readonly contrast: number;
  readonly chroma: number | null;
  readonly grain: number;
  readonly edgeUm: number | null;
}

/** A setting whose marks come near a piece. */
export interface Match {
  readonly choice: SettingChoice;
  /** What its marks are expected to read; null where too few cells were read. */
  readonly expected: Readonly<Record<Measure, Expected | null>>;
  /** ΔE₀₀ that likely remains between its marks and the piece's: the middle, and nine times in ten between low and high. */
  readonly remaining: { readonly low: number; readonly middle: number; readonly high: number };
  /** Off by so many of what two readings of one mark may differ by, all measures together. */
  readonly off: number;
}

/** What two readings of one mark differ by, at least: L*, chroma, L*, µm. Common practice, no source. */
const READINGS: Record<Measure, number> = { contrast: 2, chroma: 2, grain: 0.6, edgeUm: 60 };
/** Colour counts for more than texture to whoever holds two pieces side by side. */
const COUNTS: Record<Measure, number> = { contrast: 1, chroma: 1, grain: 0.4, edgeUm: 0.3 };
/** What holds less often than this is no match. */
const LIKELY = 0.5;
const DRAWS = 200;
const SEED = 11;
const NINE_OF_TEN = 1.645;

/** What comes nearest a piece: of all that was tried and more likely holds than not, and of what is proven; null where there is none. */
export interface MatchAnswer {
  readonly nearest: Match | null;
  readonly proven: Match | null;
}

/**
 * Of the settings that a window tried, those whose marks are expected to come nearest a piece in contrast, tint, grain and edge; none
 * where no picture tells the contrast of enough cells. The piece's ground is taken for that of the marks to come.
 * @throws value.not-positive, value.not-finite
 */
export function matchPiece(
  fit: WindowFit,
  job: SettingJob,
  of: { readonly cells: readonly MeasuredCell[]; readonly target: MatchTarget },
): MatchAnswer {
  const fields = fieldsOf(of.cells);
  const found: { nearest: Match | null; proven: Match | null } = { nearest: null, proven: null };
  if (!fields.contrast) return found;
  const tried = triedPlaces(fit, job.tolerance);
  const { powers, rasters } = tested(fit, job);
  const places = rasters.flatMap((raster) =>
    powers.map((power) => ({ raster, power, off: offBy({ ...raster, ...power }, fields, of.target) })),
  );
  for (const { raster, power, off } of places.sort((a, b) => a.off - b.off || a.raster.seconds - b.raster.seconds)) {
    if (!tried({ ...raster, ...power })) continue;
    const choice = judged(raster, power, boundariesAt(fit, { ...raster, powerW: 1 }), job);
    if (choice.holds < LIKELY) continue;
    found.nearest ??= matchAt(choice, off, fields, of.target);
    if (choice.sure < SURE) continue;
    found.proven = matchAt(choice, off, fields, of.target);
    break;
  }
  return found;
}

function matchAt(choice: SettingChoice, off: number, fields: Fields, target: MatchTarget): Match {
  const expected = Object.fromEntries(
    MEASURES.map((measure) => [measure, fields[measure]?.at(choice) ?? null]),
  ) as Match['expected'];
  return { choice, off: Math.sqrt(off), expected, remaining: remainingOf(expected, target) };
}

type Fields = Readonly<Record<Measure, MeasureField | null>>;

const fieldsOf = (cells: readonly MeasuredCell[]): Fields =>
  Object.fromEntries(MEASURES.map((measure) => [measure, measureField(cells, measure)])) as Record<
    Measure,
    MeasureField | null
  >;

/** Squared distance of what is expected from the piece, in what readings differ by. */
function offBy(choice: WindowPoint, fields: Fields, target: MatchTarget): number {
  let sum = 0;
  for (const measure of MEASURES) {
    const [field, wanted] = [fields[measure], target[measure]];
    if (!field || wanted === null) continue;
    sum += COUNTS[measure] * ((field.mean(choice) - wanted) / READINGS[measure]) ** 2;
  }
  return sum;
}

/** ΔE₀₀ between marks as they may turn out and the piece: lightness by contrast on the piece's ground, chroma in the piece's own hue. */
function remainingOf(expected: Match['expected'], { mark, bare }: MatchTarget): Match['remaining'] {
  const random = seededRandom(SEED);
  const hue = Math.atan2(mark.b, mark.a);
  const drawn = (one: Expected) => one.mean + ((one.high - one.low) / (2 * NINE_OF_TEN)) * standardNormal(random);
  const { contrast, chroma } = expected;
  const found = Array.from({ length: DRAWS }, () => {
    const c = Math.max(0, chroma ? drawn(chroma) : Math.hypot(mark.a, mark.b));
    const l = Math.min(100, Math.max(0, bare.l - drawn(contrast!)));
    return ciede2000({ l, a: c * Math.cos(hue), b: c * Math.sin(hue) }, mark);
  }).sort((a, b) => a - b);
  const at = (share: number) => found[Math.round(share * (DRAWS - 1))]!;
  return { low: at(0.05), middle: at(0.5), high: at(0.95) };
}
