/** A place on a chart by its axes, both logarithmic. */
export type Point = readonly [x: number, y: number];

interface LogAxis {
  readonly from: number;
  readonly to: number;
}

/** Something that no label may cover: a place, and how far it reaches about it, px. */
export interface Taken {
  readonly at: Point;
  readonly reachPx: number;
}

interface Box {
  readonly x: number;
  readonly y: number;
  readonly halfWidth: number;
  readonly halfHeight: number;
}

/** The plot that labels stand clear on, px: on a wider one they stand further apart, on a phone's they may touch. */
export const PLOT = { width: 340, height: 290 };
/** A letter's width and a line's height as shares of the size of the letters. */
const LETTER = { width: 0.6, height: 1.25 };
/** Clear of other things by so much, px. */
const APART = 2;

/** How far two boxes lie over one another, px² (0 where they are clear). */
function overlap(a: Box, b: Box): number {
  const across = a.halfWidth + b.halfWidth + APART - Math.abs(a.x - b.x);
  const down = a.halfHeight + b.halfHeight + APART - Math.abs(a.y - b.y);
  return across > 0 && down > 0 ? across * down : 0;
}

/** How much of a box lies beyond the plot, px², counted twice: half a word is worse than a covered point. */
function beyond({ x, y, halfWidth, halfHeight }: Box): number {
  const across = Math.max(0, halfWidth - x, x + halfWidth - PLOT.width);
  const down = Math.max(0, halfHeight - y, y + halfHeight - PLOT.height);
  return 4 * (across * halfHeight + down * halfWidth);
}

/**
 * Finds places for the labels of a chart, one after another, clear of its points and of the labels before.
 * @param axes ends of both axes, above 0 @param taken what no label may cover
 */
export function labelSpots(axes: { readonly x: LogAxis; readonly y: LogAxis }, taken: readonly Taken[]) {
  const share = (axis: LogAxis, value: number) => Math.log(value / axis.from) / Math.log(axis.to / axis.from);
  const value = (axis: LogAxis, of: number) => axis.from * (axis.to / axis.from) ** of;
  const px = ([x, y]: Point) => ({ x: share(axes.x, x) * PLOT.width, y: (1 - share(axes.y, y)) * PLOT.height });
  const boxes: Box[] = taken.map(({ at, reachPx }) => ({ ...px(at), halfWidth: reachPx, halfHeight: reachPx }));
  return {
    /** The place at a share of either axis, 0 to 1 from its beginning. */
    at: (across: number, up: number): Point => [value(axes.x, across), value(axes.y, up)],
    /**
     * The first of some places at which a text stands clear of everything; else the one where it covers least, or null where it need not
     * be shown.
     */
    place(text: string, fontSize: number, places: readonly Point[], needed: boolean): Point | null {
      const half = {
        halfWidth: (text.length * LETTER.width * fontSize) / 2,
        halfHeight: (LETTER.height * fontSize) / 2,
      };
      let best: { at: Point; box: Box; covers: number } | null = null;
      for (const at of places) {
        const box = { ...px(at), ...half };
        const covers = boxes.reduce((sum, other) => sum + overlap(box, other), beyond(box));
        if (!best || covers < best.covers) best = { at, box, covers };
        if (covers === 0) break;
      }
      if (!best || (best.covers > 0 && !needed)) return null;
      boxes.push(best.box);
      return best.at;
    },
  };
}
