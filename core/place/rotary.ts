import { CoreError } from '../support/core-error.js';
import { requireNotNegative, requirePositive } from '../support/require.js';

/** Surface that turns by under the beam for a degree, mm: πD/360. @throws value.not-positive @example rotaryMmPerDegree(88) // 0.7679 */
export function rotaryMmPerDegree(diameterMm: number): number {
  return (Math.PI * requirePositive('diameter', diameterMm)) / 360;
}

/** A wrap round a part, straight or tapered. */
export interface RotaryPlan {
  readonly degrees: number;
  readonly mmPerDegree: number;
  /** Room left round the part, mm; negative where the wrap runs over itself. */
  readonly seamMm: number;
  /** How much wider the mark comes out at the far end than at the near one, as a share (0 on a straight part). */
  readonly stretch: number;
  /** Half angle of the taper, degrees: how far the piece must be tilted for a level line. */
  readonly tiltDegrees: number;
}

/**
 * Turns a width of artwork into degrees on a part between two diameters `alongMm` apart; scaled on their mean.
 * @param diameters near and far end, mm; the same twice on a straight part
 * @throws value.not-positive; place.taper-reversed when the far end is the wider one (turn the part round, so that the wider end is near)
 */
export function planRotary(part: {
  readonly nearMm: number;
  readonly farMm: number;
  readonly alongMm: number;
  readonly artworkMm: number;
}): RotaryPlan {
  const near = requirePositive('diameter', part.nearMm);
  const far = requirePositive('far diameter', part.farMm);
  if (far > near)
    throw new CoreError(
      'place.taper-reversed',
      `The far end, ${far} mm, is wider than the near one, ${near} mm: were the two swapped?`,
      {
        path: 'farMm',
      },
    );
  const mean = (near + far) / 2;
  const mmPerDegree = rotaryMmPerDegree(mean);
  return {
    degrees: requirePositive('artwork', part.artworkMm) / mmPerDegree,
    mmPerDegree,
    seamMm: Math.PI * mean - part.artworkMm,
    stretch: near / far - 1,
    tiltDegrees:
      (Math.atan2((near - far) / 2, Math.max(requireNotNegative('length', part.alongMm), 1e-9)) * 180) / Math.PI,
  };
}
