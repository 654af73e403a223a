import { cheapestContainers, type ContainerPurchase, type ContainerSize } from '../cost/cheapest-containers.js';
import { requireNotNegative, requirePositive, requireWithin } from '../support/require.js';

/** A container on the shelf. Days as ISO dates (YYYY-MM-DD). */
export interface ShelfContainer {
  readonly id: string;
  readonly name: string;
  readonly leftG: number;
  readonly openedOn: string | null;
  readonly expiresOn: string | null;
}

/** Which containers to set out, in the order they are emptied, and what must be bought. */
export interface ReadyPlan {
  readonly use: readonly {
    readonly id: string;
    readonly name: string;
    readonly takeG: number;
    readonly leftG: number;
  }[];
  /** Left out, and why. */
  readonly passedOver: readonly { readonly name: string; readonly why: 'past its date' | 'empty' }[];
  readonly shortG: number;
  readonly buy: ContainerPurchase | null;
}

/**
 * Containers to have ready for a mass: opened ones first, then the one whose date comes first; none past its date. What is short
 * is bought in the cheapest whole containers.
 * @param neededG g that must leave the containers @param today ISO date
 * @throws value.negative; cost.no-size when something is short and no size is known
 */
export function containersToReady(
  neededG: number,
  shelf: readonly ShelfContainer[],
  sizes: readonly ContainerSize[],
  today: string,
): ReadyPlan {
  let wanted = requireNotNegative('mass', neededG);
  const fit = shelfOrder(shelf, today);
  const use = fit.flatMap(({ id, name, leftG }) => {
    const takeG = Math.min(wanted, leftG);
    wanted -= takeG;
    return takeG > 0 ? [{ id, name, takeG, leftG }] : [];
  });
  const passedOver = shelf
    .filter((one) => !fit.includes(one))
    .map(({ name, leftG }) => ({ name, why: leftG > 0 ? ('past its date' as const) : ('empty' as const) }));
  return { use, passedOver, shortG: wanted, buy: wanted > 0 ? cheapestContainers(wanted, sizes) : null };
}

/** Containers with something left and not past their date, in the order they are emptied. @param today ISO date */
export function shelfOrder(shelf: readonly ShelfContainer[], today: string): ShelfContainer[] {
  return shelf
    .filter(({ leftG, expiresOn }) => leftG > 0 && !(expiresOn && expiresOn < today))
    .sort(
      (a, b) =>
        Number(a.openedOn === null) - Number(b.openedOn === null) ||
        (a.expiresOn ?? '9999').localeCompare(b.expiresOn ?? '9999') ||
        a.leftG - b.leftG,
    );
}

/** Compound and thinner to measure out, mL, each rounded to the step of a measure that keeps their ratio. */
export interface MixPlan {
  readonly compoundMl: number;
  readonly thinnerMl: number;
  readonly totalMl: number;
  readonly compoundG: number;
  /** What the thinner is measured with: marks of a beaker, or of a syringe for small amounts, mL. */
  readonly thinnerStepMl: number;
}

/** Marks of the measures at hand, mL: beaker, small cup, syringes. */
const MEASURES_ML = [5, 1, 0.5, 0.1] as const;
const FINEST_ML = 0.1;
/** How far rounding may take the thinner off its ratio. */
const RATIO_OFF = 0.05;

/**
 * Volumes of a mix that hold at least a mass of mix: V = m/(ρ·(1 + r·ρ_thinner/ρ)), ρ of the compound as supplied being
 * volume solids × dry density ÷ solids by mass (the same solids counted by volume and by mass). Not for aerosols, whose solids
 * by mass count the propellant.
 * @param massG mass of mix in g
 * @throws value.not-positive, value.out-of-range
 */
export function mixFor(
  massG: number,
  compound: {
    readonly volumeSolids: number;
    readonly massSolids: number;
    readonly dryDensity: number;
    readonly thinnerRatio: number;
    readonly thinnerDensityRatio: number;
  },
): MixPlan {
  requirePositive('mass', massG);
  requireWithin('solids by mass', requirePositive('solids by mass', compound.massSolids), 0, 1);
  const density =
    (requirePositive('volume solids', compound.volumeSolids) * requirePositive('dry density', compound.dryDensity)) /
    compound.massSolids;
  const ratio = requirePositive('thinner ratio', compound.thinnerRatio);
  const exact =
    massG / (density * (1 + ratio * requirePositive('thinner density ratio', compound.thinnerDensityRatio)));
  const thinned = { ratio, densityRatio: compound.thinnerDensityRatio };
  const { compoundMl, thinnerMl, thinnerStepMl } = toMeasure(exact, thinned);
  const totalMl = nearest(compoundMl + thinnerMl, FINEST_ML);
  return { compoundMl, thinnerMl, totalMl, compoundG: compoundMl * density, thinnerStepMl };
}

interface Thinned {
  readonly ratio: number;
  readonly densityRatio: number;
}

/**
 * What to measure out for so much compound: a tenth over in the coarsest measure is poured away, more only where the thinner could not
 * be measured to its ratio otherwise; never less than the mass that is needed.
 */
function toMeasure(exact: number, thinned: Thinned): Pick<MixPlan, 'compoundMl' | 'thinnerMl' | 'thinnerStepMl'> {
  const step = MEASURES_ML.find((one) => upTo(exact, one) <= 1.1 * exact) ?? FINEST_ML;
  const needed = exact * (1 + thinned.ratio * thinned.densityRatio);
  const mixes = Array.from({ length: 12 }, (_, k) =>
    thinnerFor(Number((upTo(exact, step) + k * step).toFixed(1)), thinned),
  );
  const enough = mixes.filter((mix) => mix.compoundMl + mix.thinnerMl * thinned.densityRatio >= needed - 1e-9);
  return enough.find(({ off }) => off <= RATIO_OFF) ?? [...enough].sort((x, y) => x.off - y.off)[0]!;
}

/** Thinner in the coarsest measure that keeps the ratio, and how far it stands off, as a share. */
function thinnerFor(compoundMl: number, { ratio }: Thinned) {
  const wanted = compoundMl * ratio;
  const measured = (step: number) => Math.max(step, nearest(wanted, step));
  const off = (step: number) => Math.abs(measured(step) - wanted) / wanted;
  const thinnerStepMl = MEASURES_ML.find((step) => off(step) <= RATIO_OFF) ?? FINEST_ML;
  return { compoundMl, thinnerMl: measured(thinnerStepMl), thinnerStepMl, off: off(thinnerStepMl) };
}

function upTo(ml: number, step: number): number {
  return Number((Math.ceil(ml / step - 1e-9) * step).toFixed(1));
}

function nearest(ml: number, step: number): number {
  return Number((Math.round(ml / step) * step).toFixed(1));
}
