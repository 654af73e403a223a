import { CoreError } from '../support/core-error.js';
import { requirePositive } from '../support/require.js';

/**
 * How far a round part falls away under a chord, mm: R − √(R² − (c/2)²).
 * @param radiusMm of the part @param chordMm across the curve, at most the diameter
 * @throws value.not-positive, value.out-of-range @example sag(45, 40) // 4.689
 */
export function sag(radiusMm: number, chordMm: number): number {
  requirePositive('radius', radiusMm);
  requirePositive('chord', chordMm);
  if (chordMm > 2 * radiusMm)
    throw new CoreError('value.out-of-range', `A chord of ${chordMm} mm is wider than the part, ${2 * radiusMm} mm.`, {
      path: 'chord',
    });
  return radiusMm - Math.sqrt(radiusMm ** 2 - (chordMm / 2) ** 2);
}

/**
 * The widest chord in mm that stays in focus on a round part when the focus is set half way down its sag: the sag may be twice the
 * half depth. The diameter where the depth outdoes the part.
 * @param depthMm half depth of focus, ± mm @throws value.not-positive
 */
export function usableChord(radiusMm: number, depthMm: number): number {
  requirePositive('radius', radiusMm);
  const fall = Math.min(2 * requirePositive('depth of focus', depthMm), radiusMm);
  return 2 * Math.sqrt(radiusMm ** 2 - (radiusMm - fall) ** 2);
}

/** Nobody refocuses so often. */
const MOST_STRIPS = 500;

/** A strip along a round part marked at one focus height. Distances from the crown in mm, height below the crown in mm. */
export interface FocusStrip {
  readonly fromMm: number;
  readonly toMm: number;
  readonly focusBelowMm: number;
}

/**
 * Strips, from the crown outward on one side, that each stay within the depth of focus; the other side mirrors them.
 * @param halfWidthMm half the width of the artwork across the curve, straight over, at most the radius
 * @throws value.not-positive, value.out-of-range, place.too-many-strips above 500
 */
export function focusStrips(radiusMm: number, halfWidthMm: number, depthMm: number): FocusStrip[] {
  const whole = sag(radiusMm, 2 * requirePositive('half width', halfWidthMm));
  const fall = 2 * requirePositive('depth of focus', depthMm);
  const count = Math.max(1, Math.ceil(whole / fall - 1e-9));
  if (count > MOST_STRIPS)
    throw new CoreError(
      'place.too-many-strips',
      `The artwork falls ${Math.round(whole)} mm round the part: it would take ${count} heights of focus of ${Number(fall.toPrecision(3))} mm each. Turn the part on a rotary, or mark less of it.`,
    );
  const across = (below: number) => Math.sqrt(Math.max(0, radiusMm ** 2 - (radiusMm - below) ** 2));
  return Array.from({ length: count }, (_, k) => {
    const [top, foot] = [(whole * k) / count, (whole * (k + 1)) / count];
    return { fromMm: across(top), toMm: across(foot), focusBelowMm: (top + foot) / 2 };
  });
}
