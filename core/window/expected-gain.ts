import type { Outcome } from '../coupon/outcomes.js';
import { seededRandom, type Random } from '../support/random.js';
import { boundariesAt, fitWindow } from './fit-window.js';
import type { WindowEquipment, WindowFit } from './window-fit.js';
import { BLOCK_POWERS, BLOCK_SPEEDS, type NextBlock } from './next-block.js';
import { sigmoid } from './ordered-logit.js';
import { quickestSetting, type SettingChoice, type SettingJob } from './setting-search.js';
import type { WindowCell } from './window-terms.js';
import type { EarlierWindow } from './earlier-windows.js';

/** What a next coupon is likely to bring. */
export interface ExpectedGain {
  /** Coupons that were played through. */
  readonly turns: number;
  /** Share of them after which a setting was proven that is quicker than the one proven before, or any where none was. */
  readonly proves: number;
  /** Seconds of a piece that it took less, of those: the middle, and the least and most. Null where none was proven before, or none is quicker. */
  readonly saved: { readonly low: number; readonly middle: number; readonly high: number } | null;
}

const TURNS = 16;
/** A quicker setting by less is no gain that anybody would see, as a share of the time. */
const SEEN = 0.01;

/**
 * Plays a proposed coupon through on coats that the cells so far allow: for each a draw of the fit says what its cells would come to, the
 * window is fitted to all of them, and the quickest setting that is then proven is looked for.
 * @param proven the quickest setting proven so far; null where none is
 */
export function expectedGain(
  fit: WindowFit,
  job: SettingJob,
  of: {
    readonly block: NextBlock;
    readonly proven: SettingChoice | null;
    readonly equipment: WindowEquipment;
    readonly earlier?: readonly EarlierWindow[];
  },
): ExpectedGain {
  const random = seededRandom(fit.seed + 1);
  const known = { equipment: of.equipment, earlier: of.earlier ?? [] };
  const saved: number[] = [];
  let proves = 0;
  for (let turn = 0; turn < TURNS; turn += 1) {
    const draw = Math.floor(random() * fit.drawCount);
    const cells = [...fit.cells, ...playedCells(fit, of.block, draw, random)];
    const after = quickestSetting(fitWindow({ cells, ...known, seed: fit.seed, effort: 'quick' }), job);
    if (!after) continue;
    if (of.proven === null) proves += 1;
    else if (after.seconds < of.proven.seconds * (1 - SEEN)) {
      proves += 1;
      saved.push(of.proven.seconds - after.seconds);
    }
  }
  saved.sort((a, b) => a - b);
  const middle = saved[Math.floor(saved.length / 2)];
  return {
    turns: TURNS,
    proves: proves / TURNS,
    saved: middle === undefined ? null : { low: saved[0]!, middle, high: saved.at(-1)! },
  };
}

/** One cell of thirty is read as something else (common practice, no source): what is taken for it. */
const MISREAD = 0.03;
const MISTAKEN: Record<Outcome, Outcome> = { under: 'holds', holds: 'under', over: 'holds' };

/** The cells of a block as a draw has them come out, now and then misread. */
function playedCells(
  fit: WindowFit,
  { powersW, speedsMmPerS, rest }: NextBlock,
  draw: number,
  random: Random,
): WindowCell[] {
  const step = (span: { low: number; high: number }, i: number, count: number) =>
    span.low * (span.high / span.low) ** (i / (count - 1));
  return Array.from({ length: BLOCK_SPEEDS.count }, (_, j) => step(speedsMmPerS, j, BLOCK_SPEEDS.count)).flatMap(
    (speedMmPerS) => {
      const at = boundariesAt(fit, { ...rest, powerW: 1, speedMmPerS });
      return Array.from({ length: BLOCK_POWERS.count }, (_, i): WindowCell => {
        const powerW = step(powersW, i, BLOCK_POWERS.count);
        const over = sigmoid(at.overK[draw]! * (Math.log(powerW) - at.overAt[draw]!));
        const bonded = sigmoid(at.bondK[draw]! * (Math.log(powerW) - at.bondAt[draw]!));
        const outcome: Outcome = random() < over ? 'over' : random() < bonded ? 'holds' : 'under';
        return { ...rest, powerW, speedMmPerS, outcome: random() < MISREAD ? MISTAKEN[outcome] : outcome };
      });
    },
  );
}

/** What a coupon costs, and a minute under the head, in minor units. */
export interface CouponPrice {
  readonly couponMinor: number;
  readonly laserMinorPerMinute: number;
}

/**
 * Pieces from which a next coupon pays: what it costs by what it is expected to save a piece, the seconds saved by how often it proves
 * them. Null where it saves nothing that has a price.
 */
export function paysFrom({ proves, saved }: Pick<ExpectedGain, 'proves' | 'saved'>, price: CouponPrice): number | null {
  const minor = proves * ((saved?.middle ?? 0) / 60) * price.laserMinorPerMinute;
  return minor > 0 ? Math.ceil(price.couponMinor / minor) : null;
}
