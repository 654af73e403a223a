import {
  SETTING_PART_NAMES,
  samePart,
  WINDOW_TERMS,
  type KnownSetting,
  type MarkSetting,
  type SettingJob,
  type SettingPart,
  type WindowPoint,
  type WindowTerm,
} from '@unto/core';
import type { CouponWindowCell } from './window-cells.js';

/** Parts that a window's axes carry whatever the cells varied. */
const AXES: readonly SettingPart[] = ['powerPercent', 'speedMmPerS', 'intervalMm', 'passes'];
/** Parts that are one thing or another, never something between. */
const KINDS = ['fill', 'directions', 'powerMode', 'air', 'extraction'] as const satisfies readonly SettingPart[];
export type FamilyKind = (typeof KINDS)[number];

/** Scrubbed cells that one window may be fitted to: what none of them varied is the same in all. */
export interface WindowFamily {
  /** Parts that all cells share. */
  readonly fixed: Pick<MarkSetting, FamilyKind> & Partial<Pick<MarkSetting, SettingTerm>>;
  /** Coats under its cells: of all, or of the first where they vary them. */
  readonly coats: number;
  /** Terms that cells vary besides power, speed, interval and passes. */
  readonly varied: readonly WindowTerm[];
  readonly couponIds: readonly string[];
  /** Judged runs that count as cells of it. */
  readonly runIds: readonly string[];
  readonly cells: readonly CouponWindowCell[];
}

/** Terms that belong to a setting: coats are under it. */
const SETTING_TERMS = WINDOW_TERMS.filter((term) => term !== 'coats');
type SettingTerm = Exclude<WindowTerm, 'coats'>;

interface Group {
  readonly cells: CouponWindowCell[];
  readonly varied: ReadonlySet<WindowTerm>;
}

/**
 * Sorts the cells of one pairing into families. Coupons that agree in what they did not vary go together; one that did not vary a
 * term joins a family that did, where its value lies within that family’s. A run joins a family of coupons whose settings it lies
 * among, and founds none. The family with most cells comes first.
 */
export function windowFamilies(cells: readonly CouponWindowCell[]): WindowFamily[] {
  const fired = byCoupon(cells.filter(({ runId }) => runId === null));
  const families: Group[] = [];
  for (const group of fired.sort((a, b) => b.varied.size - a.varied.size || b.cells.length - a.cells.length)) {
    const home = families.find((family) => joins(family, group));
    if (home) home.cells.push(...group.cells);
    else families.push({ cells: [...group.cells], varied: group.varied });
  }
  const ranges = families.map(({ cells: own }) => triedRanges(own));
  for (const run of cells.filter(({ runId }) => runId !== null)) {
    const own = { cells: [run], varied: new Set<WindowTerm>() };
    families.find((family, i) => joins(family, own) && ranges[i]!(run))?.cells.push(run);
  }
  return families.map(familyOf).sort((a, b) => b.cells.length - a.cells.length);
}

/** Cells of each coupon. */
function byCoupon(cells: readonly CouponWindowCell[]): Group[] {
  const groups = new Map<string, CouponWindowCell[]>();
  for (const cell of cells) {
    groups.set(cell.couponId!, [...(groups.get(cell.couponId!) ?? []), cell]);
  }
  return [...groups.values()].map((own) => ({
    cells: own,
    varied: new Set(WINDOW_TERMS.filter((term) => own.some((cell) => !sameTerm(term, cell, own[0]!)))),
  }));
}

/** Whether a run lies among the powers, speeds, intervals and passes that coupons tried: beyond them it would stretch what was proved. */
function triedRanges(cells: readonly CouponWindowCell[]): (run: CouponWindowCell) => boolean {
  const ranges = (['powerW', 'speedMmPerS', 'passes'] as const).map((part) => {
    const values = cells.map((cell) => cell[part]);
    return { part, low: Math.min(...values), high: Math.max(...values) };
  });
  const intervals = [...new Set(cells.map(({ intervalMm }) => intervalMm))];
  return (run) =>
    ranges.every(({ part, low, high }) => run[part] >= low && run[part] <= high) &&
    intervals.some((interval) => samePart('intervalMm', interval, run.intervalMm));
}

/** Two that nobody noted go together in a family; what they prove is told apart later. */
function sameIn(part: SettingPart, a: MarkSetting, b: MarkSetting): boolean {
  return a[part] === b[part] || samePart(part, a[part], b[part]);
}

/** Whether two stand at the same value of a term; a run that says no coats goes with any. */
function sameTerm(term: WindowTerm, a: CouponWindowCell, b: CouponWindowCell): boolean {
  return term === 'coats' ? b.coats === null || a.coats === b.coats : sameIn(term, a, b);
}

function joins(family: Group, group: Group): boolean {
  const [home, guest] = [family.cells[0]!, group.cells[0]!];
  if (!KINDS.every((kind) => sameIn(kind, home, guest))) return false;
  return WINDOW_TERMS.every((term) => {
    if (group.varied.has(term)) return family.varied.has(term);
    return family.varied.has(term) ? liesWithin(family, term, guest[term]) : sameTerm(term, home, guest);
  });
}

function liesWithin({ cells }: Group, term: WindowTerm, value: number | null): boolean {
  const values = cells.map((cell) => cell[term]).filter((one) => one !== null);
  return value !== null && value >= Math.min(...values) && value <= Math.max(...values);
}

const distinct = (ids: readonly (string | null)[]) => [...new Set(ids)].filter((id) => id !== null);

function familyOf({ cells, varied }: Group): WindowFamily {
  const first = cells[0]!;
  const kinds = Object.fromEntries(KINDS.map((kind) => [kind, first[kind]])) as Pick<MarkSetting, FamilyKind>;
  const terms = Object.fromEntries(
    SETTING_TERMS.filter((term) => !varied.has(term)).map((term) => [term, first[term]]),
  ) as Partial<Pick<MarkSetting, SettingTerm>>;
  return {
    fixed: { ...kinds, ...terms },
    coats: first.coats ?? 0,
    varied: WINDOW_TERMS.filter((term) => varied.has(term)),
    couponIds: distinct(cells.map(({ couponId }) => couponId)),
    runIds: distinct(cells.map(({ runId }) => runId)),
    // Equal within the tolerance is equal: the fit is not to take a last digit for a term that was varied.
    cells: cells.map((cell) => ({ ...cell, ...terms, ...(varied.has('coats') ? {} : { coats: first.coats }) })),
  };
}

/** A setting and the coats it is for; where nobody says these, those of the family. */
export type CoatedSetting<S extends MarkSetting = MarkSetting> = S & { readonly coats?: number | null | undefined };

/** Whether a family's cells stood under so many coats, or some under fewer and some under more. */
export function coversCoats({ coats, varied }: WindowFamily, of: number | null | undefined): boolean {
  return of === null || of === undefined || varied.includes('coats') || coats === of;
}

/** Parts in which a setting leaves what a family shares: in these it is not proved by it. */
export function partsOutside(family: WindowFamily, setting: MarkSetting): SettingPart[] {
  return (Object.keys(SETTING_PART_NAMES) as SettingPart[]).filter((part) => {
    if (AXES.includes(part) || family.varied.includes(part as WindowTerm)) return false;
    return !samePart(part, family.fixed[part as FamilyKind], setting[part] as never);
  });
}

/** The family that speaks of a setting: one that it does not leave, else the one it leaves in the fewest parts. */
export function familyFor(families: readonly WindowFamily[], setting: CoatedSetting): WindowFamily | null {
  const ranked = families.map((family) => ({
    family,
    apart: partsOutside(family, setting).length + (coversCoats(family, setting.coats) ? 0 : 1),
  }));
  return ranked.sort((a, b) => a.apart - b.apart)[0]?.family ?? null;
}

/** The search for a setting in a family: its rows run as the family’s did. */
export function familyJob(family: WindowFamily, job: SettingJob): SettingJob {
  return { ...job, directions: family.fixed.directions ?? job.directions };
}

/** A whole setting of a family: its shared parts, with what was chosen inside it. */
export function settingIn(
  family: WindowFamily,
  chosen: WindowPoint & { readonly powerPercent: number },
): CoatedSetting<KnownSetting> & { readonly coats: number } {
  const first = family.cells[0]!;
  const terms = Object.fromEntries(SETTING_TERMS.map((term) => [term, chosen[term] ?? first[term]]));
  const { powerPercent, powerW, speedMmPerS, intervalMm, passes } = chosen;
  return {
    ...(terms as unknown as Pick<MarkSetting, SettingTerm>),
    ...{ powerPercent, powerW, speedMmPerS, intervalMm, passes, coats: chosen.coats ?? family.coats },
    ...(Object.fromEntries(KINDS.map((kind) => [kind, first[kind]])) as unknown as Pick<MarkSetting, FamilyKind>),
  };
}
