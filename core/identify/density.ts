import { requirePositive, requireWithin } from '../support/require.js';

/** How a volume was found. */
export type VolumeReading =
  | { readonly by: 'sheet'; readonly lengthMm: number; readonly widthMm: number; readonly thicknessMm: number }
  | { readonly by: 'water'; readonly displacedMl: number };

/**
 * Density in g/cm³ with the share it may be off (one standard deviation), from a weighing and a volume. A sheet is taken as
 * length × width × thickness read to 0.5 mm and 0.03 mm; displaced water to 0.5 mL; the scale to 0.05 g.
 * @param massG g, above 0
 * @throws value.not-positive; value.out-of-range when the volume is read too coarsely to say anything (error above half)
 * @example 50 × 40 × 1.2 mm of 19.2 g: 8.0 g/cm³
 */
export function densityFromWeighing(massG: number, volume: VolumeReading): { value: number; error: number } {
  requirePositive('weight', massG);
  const { cm3, share } = volumeOf(volume);
  const error = Math.hypot(share, 0.05 / massG);
  requireWithin('error of the volume', error, 0, 0.5);
  return { value: massG / cm3, error };
}

function volumeOf(volume: VolumeReading): { cm3: number; share: number } {
  if (volume.by === 'water') {
    const cm3 = requirePositive('water', volume.displacedMl);
    return { cm3, share: 0.5 / cm3 };
  }
  const { lengthMm, widthMm, thicknessMm } = volume;
  const cm3 =
    (requirePositive('length', lengthMm) *
      requirePositive('width', widthMm) *
      requirePositive('thickness', thicknessMm)) /
    1000;
  return { cm3, share: Math.hypot(0.5 / lengthMm, 0.5 / widthMm, 0.03 / thicknessMm) };
}
