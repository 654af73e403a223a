import { requirePositive, requireFinite } from '../support/require.js';

/**
 * Focal spot diameter (1/e², mm) of a Gaussian beam: d = 4 M² λ f /(π D). Terms of ISO 11146.
 * @param wavelengthMm wavelength in mm (10.6 µm = 0.0106) @param focalLengthMm lens focal length in mm
 * @param beamMm beam diameter at the lens in mm @param m2 beam quality, 1 or more
 * @throws value.not-positive
 * @example spotDiameter({ wavelengthMm: 0.0106, m2: 1.2, focalLengthMm: 50.8, beamMm: 5 }) // 0.1645
 */
export function spotDiameter(lens: {
  wavelengthMm: number;
  focalLengthMm: number;
  beamMm: number;
  m2: number;
}): number {
  requirePositive('wavelengthMm', lens.wavelengthMm);
  requirePositive('focalLengthMm', lens.focalLengthMm);
  requirePositive('beamMm', lens.beamMm);
  requirePositive('m2', lens.m2);
  return (4 * lens.m2 * lens.wavelengthMm * lens.focalLengthMm) / (Math.PI * lens.beamMm);
}

/**
 * Rayleigh range in mm: zR = π (d/2)²/(M² λ). Terms of ISO 11146.
 * @throws value.not-positive
 */
export function rayleighRange(beam: { spotMm: number; wavelengthMm: number; m2: number }): number {
  requirePositive('spotMm', beam.spotMm);
  requirePositive('wavelengthMm', beam.wavelengthMm);
  requirePositive('m2', beam.m2);
  return (Math.PI * (beam.spotMm / 2) ** 2) / (beam.m2 * beam.wavelengthMm);
}

/**
 * Spot diameter in mm at a height off focus (mm, either sign): d √(1+(z/zR)²).
 * @throws value.not-positive, value.not-finite
 */
export function spotOffFocus(focus: { spotMm: number; rayleighMm: number }, offsetMm: number): number {
  requirePositive('spotMm', focus.spotMm);
  requirePositive('rayleighMm', focus.rayleighMm);
  return focus.spotMm * Math.sqrt(1 + (requireFinite('offsetMm', offsetMm) / focus.rayleighMm) ** 2);
}

/**
 * Half depth of focus (± mm) within which the spot grows by no more than `growth` (0.05 = 5 %).
 * @throws value.not-positive
 * @example depthOfFocus({ rayleighMm: 1, growth: 0.05 }) // 0.320
 */
export function depthOfFocus(limits: { rayleighMm: number; growth: number }): number {
  requirePositive('rayleighMm', limits.rayleighMm);
  requirePositive('growth', limits.growth);
  return limits.rayleighMm * Math.sqrt((1 + limits.growth) ** 2 - 1);
}

/** Radius (mm) of the round spot that stands for an elliptical one: √(w₁w₂). @throws value.not-positive */
export function equivalentRadius(spotXMm: number, spotYMm: number): number {
  return Math.sqrt(requirePositive('spotXMm', spotXMm) * requirePositive('spotYMm', spotYMm)) / 2;
}

/** Width of a spot, mm: twice the radius of the round spot of its area. @throws as equivalentRadius */
export function spotWidth({ spotXMm, spotYMm }: { readonly spotXMm: number; readonly spotYMm: number }): number {
  return 2 * equivalentRadius(spotXMm, spotYMm);
}
