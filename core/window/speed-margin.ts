import { drawStride, linear, placeIn, type WindowFit } from './fit-window.js';
import type { WindowPoint } from './window-terms.js';

const SPEED = 1;

/**
 * How far the speed at which a setting begins to be too little may lie off the fitted one, as factors that hold nine times in ten
 * over the draws of the fit; the setting's own speed carries the same spread. Draws whose speed slope is not negative are passed over.
 * @throws value.not-positive
 * @example { low: 0.93, high: 1.08 }: the speed at which it begins to be too little may lie 7 % below to 8 % above the fitted one
 */
export function speedMargin(fit: WindowFit, point: WindowPoint): { low: number; high: number } {
  const z = placeIn(fit, point);
  const boundary = (draw: number): number => {
    const { eta, low } = linear(fit, z, draw);
    const slope = draw < 0 ? fit.slopes[SPEED]! : fit.draws[draw * drawStride(fit) + 2 + SPEED]!;
    return slope < 0 ? (low - eta) / slope : Number.NaN;
  };
  const fitted = boundary(-1);
  const away = Array.from({ length: fit.drawCount }, (_, draw) => boundary(draw) - fitted)
    .filter(Number.isFinite)
    .sort((a, b) => a - b);
  if (!Number.isFinite(fitted) || away.length === 0) return { low: 0.5, high: 2 };
  const at = (share: number) => Math.exp(away[Math.round(share * (away.length - 1))]!);
  return { low: Math.min(1, at(0.05)), high: Math.max(1, at(0.95)) };
}
