/** What the section shows. Lengths in mm, films in µm; null where nothing is known yet. */
export interface SectionModel {
  readonly mode: 'plan' | 'coat' | 'beam' | 'done';
  /** Pieces were fired: only then anything bonded. */
  readonly fired: boolean;
  readonly material: string;
  readonly vitreous: boolean;
  readonly thicknessMm: number;
  readonly film: {
    readonly wetUm: number;
    readonly dryUm: number;
    readonly lowUm: number | null;
    readonly highUm: number | null;
    readonly measured: boolean;
  } | null;
  readonly band: { readonly lowUm: number; readonly highUm: number } | null;
  /** 0 wet to 1 dry; null when no timer runs. */
  readonly drying: number | null;
  readonly dryS: number | null;
  readonly distanceMm: number | null;
  /** Height of the part over its artwork’s middle line above the height the focus is set for, mm, from left to right; null for flat. */
  readonly surface: { readonly heightsMm: readonly number[]; readonly words: string } | null;
  readonly beam: {
    readonly spotMm: number;
    readonly rayleighMm: number;
    readonly depthMm: number;
    readonly growth: number;
    readonly offsetMm: number;
    /** Null while no setting is chosen: then no lines are drawn. */
    readonly intervalMm: number | null;
  } | null;
}

export const VIEW = { width: 660, height: 440, surface: 320, left: 24, right: 636, slab: 62 } as const;

/** Pixels for a µm of film: the wettest film takes at most 96 px, a thin one at most 5 px a µm. */
export function pixelsPerUm(model: SectionModel): number {
  const tallest = Math.max(model.film?.wetUm ?? 0, model.film?.dryUm ?? 0, model.band?.highUm ?? 0, 1);
  return Math.min(5, 96 / tallest);
}

/** “2000 : 1” for a reader who sees 96 CSS pixels an inch. */
export function filmScale(model: SectionModel): string {
  const ratio = pixelsPerUm(model) * 1000 * (25.4 / 96);
  return `${Math.round(ratio / 50) * 50} : 1`;
}

/** Outline of the film while it sinks from wet (left) to dry (right): SVG path along its top. */
export function sinkingFilm(wetPx: number, dryPx: number): { path: string; topAt: (share: number) => number } {
  const { surface, left, right } = VIEW;
  const start = left + (right - left) * 0.36;
  const end = left + (right - left) * 0.7;
  const wet = surface - wetPx;
  const dry = surface - dryPx;
  const middle = (start + end) / 2;
  const path = `M${left} ${wet} H${start} C${middle} ${wet} ${middle} ${dry} ${end} ${dry} H${right}`;
  const topAt = (share: number) => {
    const t = Math.min(1, Math.max(0, share));
    const eased = t * t * (3 - 2 * t);
    return wet + (dry - wet) * eased;
  };
  return { path, topAt };
}

/** x of the “now” line: the sinking part of the drawing is the drying time. */
export function nowX(share: number): number {
  const { left, right } = VIEW;
  return left + (right - left) * (0.12 + 0.58 * Math.min(1, Math.max(0, share)));
}

/** The beam's outline round its waist, as a polygon; x in spot widths to scale, height exaggerated so that the depth of focus shows. */
export function beamOutline(
  beam: NonNullable<SectionModel['beam']>,
  surfaceY: number,
): { points: string; focusY: number; depthPx: number; pxPerMm: number } {
  const pxPerMm = 42 / beam.spotMm;
  const depthPx = 46;
  const pxPerHeight = depthPx / beam.depthMm;
  const centre = (VIEW.left + VIEW.right) / 2;
  const focusY = surfaceY - beam.offsetMm * pxPerHeight;
  const half = (y: number) => {
    const z = (focusY - y) / pxPerHeight;
    return (beam.spotMm / 2) * Math.sqrt(1 + (z / beam.rayleighMm) ** 2) * pxPerMm;
  };
  const heights = Array.from({ length: 41 }, (_, i) => 30 + ((surfaceY - 30) * i) / 40);
  const leftSide = heights.map((y) => `${(centre - half(y)).toFixed(1)},${y.toFixed(1)}`);
  const rightSide = [...heights].reverse().map((y) => `${(centre + half(y)).toFixed(1)},${y.toFixed(1)}`);
  return { points: [...leftSide, ...rightSide].join(' '), focusY, depthPx, pxPerMm };
}

/** A warped or round part is drawn at most this far off its flat place, px. */
const MOST_BEND_PX = 84;

/** How far the part’s top lies above its flat place from left to right, px, to the scale of the depth of focus; clipped, not squeezed. */
export function surfaceRise(model: SectionModel, depthPx: number): readonly number[] {
  if (!model.surface || !model.beam || model.mode !== 'beam') return [0, 0];
  const perMm = depthPx / model.beam.depthMm;
  return model.surface.heightsMm.map((mm) => Math.max(-MOST_BEND_PX, Math.min(MOST_BEND_PX, mm * perMm)));
}

/** A band that follows the part’s top, from `above` px over it to `below` px under it: closed SVG path. */
export function bandAlong(rise: readonly number[], above: number, below: number): string {
  const { left, right, surface } = VIEW;
  const x = (i: number) => (left + ((right - left) * i) / (rise.length - 1)).toFixed(1);
  const top = rise.map((up, i) => `${x(i)} ${(surface - up - above).toFixed(1)}`);
  const foot = rise.map((up, i) => `${x(i)} ${(surface - up + below).toFixed(1)}`).reverse();
  return `M${[...top, ...foot].join('L')}Z`;
}

/** The line `above` px over the part’s top. */
export function lineAlong(rise: readonly number[], above: number): string {
  const { left, right, surface } = VIEW;
  return `M${rise.map((up, i) => `${(left + ((right - left) * i) / (rise.length - 1)).toFixed(1)} ${(surface - up - above).toFixed(1)}`).join('L')}`;
}

/** How far above its flat place the top lies at an x of the drawing, px. */
export function riseAt(rise: readonly number[], x: number): number {
  const at = Math.min(1, Math.max(0, (x - VIEW.left) / (VIEW.right - VIEW.left))) * (rise.length - 1);
  const i = Math.min(rise.length - 2, Math.floor(at));
  return rise[i]! + (rise[i + 1]! - rise[i]!) * (at - i);
}

/** x of hatch lines at the interval, to the beam's horizontal scale, across the drawing. */
export function hatchMarks(intervalPx: number): number[] {
  const { left, right } = VIEW;
  const centre = (left + right) / 2;
  const step = Math.max(3, intervalPx);
  const count = Math.floor((centre - left - 12) / step);
  return Array.from({ length: 2 * count + 1 }, (_, i) => centre + (i - count) * step);
}
