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
  const fit = shelf.filter(({ leftG, expiresOn }) => leftG > 0 && !(expiresOn && expiresOn < today));
  const order = [...fit].sort(
    (a, b) =>
      Number(a.openedOn === null) - Number(b.openedOn === null) ||
      (a.expiresOn ?? '9999').localeCompare(b.expiresOn ?? '9999') ||
      a.leftG - b.leftG,
  );
  const use = order.flatMap(({ id, name, leftG }) => {
    const takeG = Math.min(wanted, leftG);
    wanted -= takeG;
    return takeG > 0 ? [{ id, name, takeG, leftG }] : [];
  });
  const passedOver = shelf
    .filter((one) => !fit.includes(one))
    .map(({ name, leftG }) => ({ name, why: leftG > 0 ? ('past its date' as const) : ('empty' as const) }));
  return { use, passedOver, shortG: wanted, buy: wanted > 0 ? cheapestContainers(wanted, sizes) : null };
}

/** Compound and thinner to measure out, mL, rounded up to the measure's step. */
export interface MixPlan {
  readonly compoundMl: number;
  readonly thinnerMl: number;
  readonly totalMl: number;
  readonly compoundG: number;
}

/**
 * Volumes of a mix that hold at least a mass of mix: V = m/(ρ·(1 + r·ρ_thinner/ρ)), ρ of the compound as supplied being
 * volume solids × dry density ÷ solids by mass (the same solids counted by volume and by mass). Not for aerosols, whose solids
 * by mass count the propellant.
 * @param massG mass of mix in g @param stepMl the measure's step, rounded up to
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
  stepMl: number,
): MixPlan {
  requirePositive('mass', massG);
  requirePositive('step', stepMl);
  requireWithin('solids by mass', requirePositive('solids by mass', compound.massSolids), 0, 1);
  const density =
    (requirePositive('volume solids', compound.volumeSolids) * requirePositive('dry density', compound.dryDensity)) /
    compound.massSolids;
  const ratio = requirePositive('thinner ratio', compound.thinnerRatio);
  const exact =
    massG / (density * (1 + ratio * requirePositive('thinner density ratio', compound.thinnerDensityRatio)));
  const up = (ml: number) => Math.ceil(ml / stepMl - 1e-9) * stepMl;
  const compoundMl = up(exact);
  const thinnerMl = up(compoundMl * ratio);
  return { compoundMl, thinnerMl, totalMl: compoundMl + thinnerMl, compoundG: compoundMl * density };
}
