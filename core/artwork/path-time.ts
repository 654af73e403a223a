import { jumpTime, rasterTime, rowCount, type RowMotion } from '../time/raster.js';
import { lineTime } from '../time/vector.js';
import { sweptRows, type SweptRows } from './measure.js';
import type { MarkedAs, PathSetting, ProgramSetting } from './program-setting.js';
import type { ArtworkShape, Ring } from './shapes.js';
import { spansOf } from './spans.js';

/**
 * Seconds to fill what rows sweep: on a gantry every row from its first mark to its last at speed, dark where it is bare; a galvo jumps over
 * what is bare.
 * @param across rows of the crossing hatch, used where the setting has one
 * @throws value.not-positive
 */
export function fillTime(swept: SweptRows, across: SweptRows, setting: PathSetting, motion: RowMotion): number {
  const [one, two] = [sweptTime(swept, setting, motion), setting.hatches > 1 ? sweptTime(across, setting, motion) : 0];
  return one + two;
}

function sweptTime(swept: SweptRows, setting: PathSetting, motion: RowMotion): number {
  const { extentMm, heightMm, spansPerRow, markedShare } = swept;
  if (!(extentMm > 0)) return 0;
  if (motion.kind === 'gantry') return rasterTime({ ...setting, widthMm: extentMm, heightMm }, motion);
  const rows = rowCount(heightMm, setting.intervalMm) * setting.passes;
  const bare = (extentMm * (1 - markedShare)) / motion.jumpMmPerS;
  const marked = (extentMm * markedShare) / setting.speedMmPerS;
  const back = setting.directions === 'one-way' ? extentMm / motion.jumpMmPerS : 0;
  return rows * (marked + bare + back + spansPerRow * motion.delayS);
}

/** Seconds to follow lines one after the other as they are drawn, with the dark moves between them. @throws value.not-positive */
export function linesTime(rings: readonly Ring[], setting: PathSetting, motion: RowMotion): number {
  const jump = jumpTime(motion);
  let seconds = 0;
  let at: readonly [number, number] | null = null;
  for (const ring of rings) {
    const [x, y] = [ring[0]!, ring[1]!];
    if (at) seconds += jump(Math.hypot(x - at[0], y - at[1]));
    seconds += lineTime(ring, setting.speedMmPerS, motion);
    at = [ring[ring.length - 2]!, ring[ring.length - 1]!];
  }
  return seconds * setting.passes;
}

/**
 * Ramps of a fill on a gantry, as seconds × mm/s² (what they take is that ÷ acceleration), and its seconds without them: what a measured time
 * teaches the acceleration by. Two-way rows; steps between rows are left to the overhead.
 */
export function fillRamps(swept: SweptRows, setting: PathSetting): { cruiseS: number; ramp: number } {
  if (!(swept.extentMm > 0)) return { cruiseS: 0, ramp: 0 };
  const rows = rowCount(swept.heightMm, setting.intervalMm) * setting.passes * setting.hatches;
  return { cruiseS: (rows * swept.extentMm) / setting.speedMmPerS, ramp: rows * 2 * setting.speedMmPerS };
}

/** Seconds to mark the shapes of a piece as its program does: outlines first where asked, rows at their own angle and interval, lines. @throws value.not-positive */
export function pathTime(
  shapes: readonly ArtworkShape[],
  setting: ProgramSetting,
  { motion, work, outlineFirst }: MarkedAs,
): number {
  const of = (as: ArtworkShape['as']) => shapes.filter((shape) => shape.as === as).flatMap(({ rings }) => rings);
  const rows = (angleDeg: number) => sweptRows(spansOf(shapes, { spacingMm: setting.intervalMm, angleDeg }));
  const fills = work !== 'lines';
  const [along, across] = fills ? [rows(setting.angleDeg), rows(setting.angleDeg + 90)] : [null, null];
  return (
    (fills && outlineFirst ? linesTime(of('marked'), setting, motion) : 0) +
    (along && across ? fillTime(along, across, setting, motion) : 0) +
    (work !== 'fill' ? linesTime(of('line'), setting, motion) : 0)
  );
}
