import { arealDose, heatIndex, standardNormal, type Outcome, type Random } from '@unto/core';

/** Hidden behaviour of one compound on one substrate under one head. Invented; nothing that users see may read it. */
export interface CoatTruth {
  /** A setting at which half of the cells bond, full power assumed. */
  readonly bondsAt: { readonly powerW: number; readonly speedMmPerS: number; readonly intervalMm: number };
  /** ln of how much more it takes until half of the cells are over-fired. */
  readonly widthLn: number;
  /** Share of heat index against dose in the bonding, 0 to 1. */
  readonly heatShare: number;
  /** Spread of the coat from cell to cell, as a share (0.06 to 0.2). */
  readonly sprayNoise: number;
  readonly radiusMm: number;
  readonly conductivity: number;
  readonly diffusivity: number;
}

/** A setting fired on it. */
export interface FiredSetting {
  readonly powerW: number;
  readonly speedMmPerS: number;
  readonly intervalMm: number;
  readonly passes: number;
}

/** What became of a cell: after the rinse nearly everything still looks marked, after the scrub only what bonded. */
export function fireCell(
  truth: CoatTruth,
  setting: FiredSetting,
  random: Random,
): { rinsed: Outcome; scrubbed: Outcome } {
  const excess =
    effect(truth, setting) - effect(truth, { ...truth.bondsAt, passes: 1 }) + truth.sprayNoise * standardNormal(random);
  const over = excess > truth.widthLn;
  const looksMarked = excess > -0.9;
  return {
    rinsed: over ? 'over' : looksMarked ? 'holds' : 'under',
    scrubbed: over ? 'over' : excess > 0 ? 'holds' : 'under',
  };
}

function effect(truth: CoatTruth, setting: FiredSetting): number {
  const { radiusMm, conductivity, diffusivity, heatShare } = truth;
  const rise = heatIndex({ ...setting, radiusMm, conductivity, diffusivity });
  return heatShare * Math.log(rise) + (1 - heatShare) * Math.log(arealDose(setting));
}
