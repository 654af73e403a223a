import { depthOfFocus, gaugeToMm, rayleighRange, spotDiameter, type GaugeMetal } from '@unto/core';
import type { HeadBody } from '@unto/contract';

/** Thickness of a gauge, mm, to the hundredth that a workshop rounds to. @throws gauge.no-metal, gauge.unknown */
export function thicknessFromGauge(gauge: number, metal: GaugeMetal | null): number {
  return Number(gaugeToMm(gauge, metal).toFixed(3));
}

/**
 * Spot and depth of focus of a lens from its head's beam: d = 4 M² λ f/(π D). Says what is missing instead, in words.
 * @param lens focal length in mm and growth limit of the depth of focus
 */
export function lensFromBeam(
  head: HeadBody | null,
  lens: { focalLengthMm: number; depthGrowth: number },
): { fields: Record<string, unknown> } | { missing: string } {
  if (!head) return { missing: 'Choose the head first.' };
  if (!head.beamDiameterMm) return { missing: `${head.name} has no beam diameter yet: enter it at the head.` };
  if (!(lens.focalLengthMm > 0)) return { missing: 'Enter the focal length first.' };
  const wavelengthMm = head.wavelengthNm * 1e-6;
  const spotMm = spotDiameter({
    wavelengthMm,
    m2: head.m2,
    focalLengthMm: lens.focalLengthMm,
    beamMm: head.beamDiameterMm,
  });
  const growth = lens.depthGrowth > 0 ? lens.depthGrowth : 0.05;
  const depth = depthOfFocus({ rayleighMm: rayleighRange({ spotMm, wavelengthMm, m2: head.m2 }), growth });
  const round = (value: number) => Number(value.toPrecision(3));
  return {
    fields: {
      spotXMm: round(spotMm),
      spotYMm: round(spotMm),
      spotSource: 'worked out',
      depthOfFocusMm: round(depth),
      depthGrowth: growth,
    },
  };
}
