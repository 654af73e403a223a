import type { CouponCell, CouponLayout } from '../coupon/layout.js';
import { textWidth } from '../lettering/label-strokes.js';
import type { Blur } from '../target/find-card.js';
import type { LevelPicture } from '../target/level-picture.js';
import { ciede2000 } from '../imaging/ciede2000.js';
import { lightness, linearToLab } from '../imaging/colour.js';
import { fitBareGround } from './bare-ground.js';
import { channelIn, columnTexture, highPass, pixelsIn, type Box } from './boxes.js';
import { edgeAcross } from './edge-across.js';
import { chromaOf, COLOURED, evennessOf, lightnessOf, meanColour, SOLID } from './patch.js';
import { mean, median } from '../statistics/index.js';

/** Why a cell of a picture is not read. */
export const UNREADABLE = ['glare', 'blur', 'outside'] as const;
export type Unreadable = (typeof UNREADABLE)[number];

/** What a picture tells of one cell. Lightness and contrast in L*, contrast positive where the mark is darker than bare ground. */
export interface CellMeasure {
  readonly cell: number;
  /** Set where nothing else may be believed; the figures are then null. */
  readonly unreadable: Unreadable | null;
  readonly lightness: number | null;
  readonly bareLightness: number | null;
  readonly contrast: number | null;
  /** ΔE₀₀ to the bare ground beside it. */
  readonly deltaE: number | null;
  /**
   * CIELAB chroma of the mark itself, holes and dirt left out: a black mark has next to none, a scorched one is brown. Null where a
   * coloured ground shows through a mark that is not solid.
   */
  readonly chroma: number | null;
  /** Share of the cell past the midpoint between bare ground and its full mark. */
  readonly coverage: number | null;
  /** 1 − median absolute deviation ÷ contrast; null where there is next to no contrast. */
  readonly evenness: number | null;
  /** Spread of what changes from pixel to pixel, the ground's own taken off, L*. */
  readonly grain: number | null;
  /** 10–90 % width of the cell's edges, the camera's own blur taken off, µm; null where no edge shows. */
  readonly edgeUm: number | null;
  /** Contrast just outside the cell as a share of its own: a halo. */
  readonly halo: number | null;
}

/** Measures of all cells and what they share. */
export interface CouponMeasures {
  readonly cells: readonly CellMeasure[];
  /** Spread of the contrast of bare ground against bare ground, L*: a contrast under three times this is none. */
  readonly noise: number;
  /** Edges finer than this cannot be told from the camera's blur, µm. */
  readonly edgeFloorUm: number;
}

/** Share of a cell's box, each way, that is read. */
const INSIDE = 0.8;
/**
 * Light added to the ground beside a cell is glare where it would put the cell's own mark, which is mostly the darker, off by more than
 * this, L*; and where it stands so many times above the ground's own spread.
 */
const GLARE = { off: 2.5, sure: 3.5 } as const;
/** Texture of the ground about a cell (its square, the camera's noise taken off) below this share of the coupon's usual one is blur. */
const BLURRED = 0.12;
/** Texture that must stand out from the camera's noise before it can tell blur, as a multiple of that noise. */
const TEXTURED = 1.2;
/** In a blurred picture a mark's rim is paler than its middle, and the gap beside it darker than the ground: both by these shares. */
const SMEARED = { rim: 0.86, gap: 0.12, insideMm: 0.35 } as const;
const BURNT_SHARE = 0.02;

/**
 * Measures every cell of a levelled coupon (mm = coupon mm).
 * @param camera 10–90 % width of a printed edge in the same picture along the coupon's axes, mm, and its spread from pixel to pixel on bare paper, L*
 */
export function measureCells(
  picture: LevelPicture,
  layout: CouponLayout,
  camera: { readonly blurMm: Blur | null; readonly noise: number },
): CouponMeasures {
  const ground = fitBareGround(picture, groundBoxes(layout));
  const blur = camera.blurMm ?? { x: 2 * picture.pxMm, y: 2 * picture.pxMm };
  const texture = layout.cells.map((cell) => textureOf(picture, sideBoxes(layout, cell)));
  const own = (value: number) => value ** 2 - camera.noise ** 2;
  const usual = own(
    median(
      texture.filter((value): value is number => value !== null),
      0,
    ),
  );
  const telling = usual > (TEXTURED * camera.noise) ** 2;
  const found = layout.cells.map((cell) => {
    const here = texture[cell.index] ?? null;
    const smooth = telling && here !== null && own(here) < BLURRED * usual;
    return measureCell({ picture, layout, cell, ground, blur, smooth });
  });
  return { cells: found, noise: ground.noise, edgeFloorUm: 1000 * Math.max(blur.x, blur.y) * 0.35 };
}

interface CellTask {
  readonly picture: LevelPicture;
  readonly layout: CouponLayout;
  readonly cell: CouponCell;
  readonly ground: ReturnType<typeof fitBareGround>;
  readonly blur: Blur;
  /** The ground about it shows less texture than it has. */
  readonly smooth: boolean;
}

function measureCell(task: CellTask): CellMeasure {
  const { picture, layout, cell, ground } = task;
  const box = insideOf(layout, cell);
  const pixels = pixelsIn(picture, box);
  const sides = sideBoxes(layout, cell);
  const bare = ground.at((box.x0 + box.x1) / 2, (box.y0 + box.y1) / 2);
  const refused = unreadable(task, pixels, sides);
  if (refused) return nothing(cell.index, refused);
  const values = lightnessOf(picture, pixels);
  const rgb = meanColour(picture, pixels);
  const lab = linearToLab(rgb[0], rgb[1], rgb[2]);
  const contrast = bare.l - lab.l;
  const marked = Math.abs(contrast) > 3 * ground.noise;
  const sorted = Float32Array.from(values).sort();

  const middle = sorted[sorted.length >> 1]!;
  // A mark tells by its own rim; where there is none, the ground's texture must.
  if (marked ? isSmeared(task, bare.l, middle) : task.smooth) return nothing(cell.index, 'blur');
  const evenness = marked ? evennessOf(picture, pixels, middle, contrast) : null;
  const grain = Math.sqrt(Math.max(0, highPass(picture, box) ** 2 - ground.texture ** 2));
  const own = marked && (Math.hypot(bare.a, bare.b) < COLOURED || (evenness! > SOLID.evenness && grain < SOLID.grain));
  return {
    cell: cell.index,
    unreadable: null,
    lightness: lab.l,
    bareLightness: bare.l,
    contrast,
    deltaE: ciede2000(lab, bare),
    chroma: own ? chromaOf(picture, pixels, sorted, contrast > 0) : null,
    coverage: coverageOf(values, sorted, bare.l, ground.noise),
    evenness,
    grain,
    edgeUm: marked ? cellEdge(picture, layout, cell, task.blur) : null,
    halo: marked ? haloOf(picture, layout, cell, bare.l) / contrast : null,
  };
}

function nothing(cell: number, why: Unreadable): CellMeasure {
  return {
    cell,
    unreadable: why,
    lightness: null,
    bareLightness: null,
    contrast: null,
    deltaE: null,
    chroma: null,
    coverage: null,
    evenness: null,
    grain: null,
    edgeUm: null,
    halo: null,
  };
}

function unreadable(task: CellTask, pixels: Int32Array, sides: readonly Box[]): Unreadable | null {
  const { picture } = task;
  if (pixels.length < 25) return 'outside';
  const burnt = (some: Int32Array) => {
    let count = 0;
    for (const i of some) count += picture.burnt[i]!;
    return count / (some.length || 1);
  };
  if (burnt(pixels) > BURNT_SHARE) return 'glare';
  const about = sides.map((side) => ({ side, own: pixelsIn(picture, side) })).filter(({ own }) => own.length >= 6);
  if (about.some(({ own }) => burnt(own) > 4 * BURNT_SHARE)) return 'glare';
  return isGlare(task, pixels, about) ? 'glare' : null;
}

/** Whether stray light beside a cell, at one place, along one side or all about it, would put its mark off. */
function isGlare(
  { picture, ground, cell }: CellTask,
  pixels: Int32Array,
  about: readonly { side: Box; own: Int32Array }[],
): boolean {
  const mark = median(channelIn(picture, pixels, 1), 0);
  const stray = about.map(({ side, own }) => {
    const usual = ground.at((side.x0 + side.x1) / 2, (side.y0 + side.y1) / 2);
    // dY = 3 Y dL / (L + 16), from L = 116 Y^(1/3) − 16.
    const spread = (3 * usual.y * ground.spread) / (usual.l + 16);
    return { left: side.x1 <= cell.xMm, extra: median(channelIn(picture, own, 1), 0) - usual.y, spread };
  });
  const sidesApart = [stray.filter(({ left }) => left), stray.filter(({ left }) => !left)];
  const groups = [...stray.map((one) => [one]), ...sidesApart, stray].filter((group) => group.length > 0);
  return groups.some((group) => {
    const extra = mean(group.map((one) => one.extra));
    const spread = mean(group.map((one) => one.spread)) / Math.sqrt(group.length);
    return extra > GLARE.sure * spread && lightness(mark) - lightness(Math.max(0, mark - extra)) > GLARE.off;
  });
}

/** The part of a cell that is read, mm on the coupon. */
export function insideOf({ design }: CouponLayout, { xMm, yMm }: CouponCell): Box {
  const [w, h] = [design.cell.widthMm, design.cell.heightMm];
  const off = (1 - INSIDE) / 2;
  return { x0: xMm + off * w, y0: yMm + off * h, x1: xMm + (1 - off) * w, y1: yMm + (1 - off) * h };
}

/** Bare ground beside a cell: the middle of the gaps to its left and right, and above it; below it a label may stand. */
function sideBoxes({ design }: CouponLayout, { xMm, yMm }: CouponCell): Box[] {
  const { widthMm: w, heightMm: h } = design.cell;
  const gap = Math.max(design.gapMm, 0.4);
  const [near, far] = [0.35 * gap, 0.65 * gap];
  const [low, high] = [yMm + 0.05 * h, yMm + 0.95 * h];
  const middle = (low + high) / 2;
  return [
    { x0: xMm - far, x1: xMm - near, y0: low, y1: middle },
    { x0: xMm - far, x1: xMm - near, y0: middle, y1: high },
    { x0: xMm + w + near, x1: xMm + w + far, y0: low, y1: middle },
    { x0: xMm + w + near, x1: xMm + w + far, y0: middle, y1: high },
  ];
}

/** Places where the ground is bare: beside every cell, without what labels cover. */
function groundBoxes(layout: CouponLayout): Box[] {
  const letters = layout.labels.map(({ text, xMm, yMm, heightMm }) => ({
    x0: xMm - 0.3,
    y0: yMm - 0.4 * heightMm,
    x1: xMm + textWidth(text, heightMm) + 0.3,
    y1: yMm + 1.2 * heightMm,
  }));
  const clear = (box: Box) =>
    !letters.some((text) => box.x0 < text.x1 && box.x1 > text.x0 && box.y0 < text.y1 && box.y1 > text.y0);
  return layout.cells.flatMap((cell) => sideBoxes(layout, cell)).filter(clear);
}

/** Share of pixels past half way from bare ground to the cell's own full mark (its darkest, or lightest, tenth). */
function coverageOf(values: Float32Array, sorted: Float32Array, bare: number, noise: number): number {
  const [dark, light] = [sorted[Math.floor(sorted.length * 0.1)]!, sorted[Math.floor(sorted.length * 0.9)]!];
  const full = Math.abs(bare - dark) >= Math.abs(light - bare) ? dark : light;
  if (Math.abs(bare - full) < Math.max(3 * noise, 4)) return 0;
  const half = (bare + full) / 2;
  let past = 0;
  for (const value of values) if (full < bare ? value < half : value > half) past += 1;
  return past / values.length;
}

/** Texture of the ground beside a cell along the gaps, where a neighbourhood of pixels is not to be had; null where too little shows. */
function textureOf(picture: LevelPicture, boxes: readonly Box[]): number | null {
  const values = boxes.map((box) => columnTexture(picture, box)).filter((value) => value !== null);
  return values.length ? Math.sqrt(values.reduce((sum, value) => sum + value ** 2, 0) / values.length) : null;
}

/** Whether the rim of a mark is washed out both ways: paler inside, darker in the gap. A halo darkens the gap alone. */
function isSmeared({ picture, layout, cell }: CellTask, bare: number, middle: number): boolean {
  const { widthMm: w, heightMm: h } = layout.design.cell;
  const { xMm, yMm } = cell;
  const off = Math.min(SMEARED.insideMm, 0.08 * Math.min(w, h));
  const thick = 0.12;
  const rims: Box[] = [
    { x0: xMm + off, x1: xMm + off + thick, y0: yMm + 0.2 * h, y1: yMm + 0.8 * h },
    { x0: xMm + w - off - thick, x1: xMm + w - off, y0: yMm + 0.2 * h, y1: yMm + 0.8 * h },
    { x0: xMm + 0.2 * w, x1: xMm + 0.8 * w, y0: yMm + h - off - thick, y1: yMm + h - off },
  ];
  const level = (boxes: readonly Box[]) => {
    const found = boxes.flatMap((box) => {
      const pixels = pixelsIn(picture, box);
      return pixels.length ? [lightnessOf(picture, pixels).reduce((sum, value) => sum + value, 0) / pixels.length] : [];
    });
    return found.length ? (bare - median(found)) / (bare - middle) : null;
  };
  const [rim, gap] = [level(rims), level(sideBoxes(layout, cell))];
  return rim !== null && gap !== null && rim < SMEARED.rim && gap > SMEARED.gap;
}

/** 10–90 % width over three edges (a label may stand below the fourth), the camera’s blur taken off in quadrature, µm. */
function cellEdge(
  picture: LevelPicture,
  { design }: CouponLayout,
  { xMm, yMm }: CouponCell,
  blur: Blur,
): number | null {
  const { widthMm: w, heightMm: h } = design.cell;
  const reach = Math.min(0.45 * Math.max(design.gapMm, 0.5) + 0.2, 0.25 * Math.min(w, h), 0.9);
  const edges = [
    { x: xMm, y: yMm, dx: 0, dy: h, nx: -1, ny: 0 },
    { x: xMm + w, y: yMm, dx: 0, dy: h, nx: 1, ny: 0 },
    { x: xMm, y: yMm + h, dx: w, dy: 0, nx: 0, ny: 1 },
  ];
  const widths = edges.map((edge) => edgeAcross(picture, edge, reach, edge.nx ? blur.x : blur.y));
  const known = widths.filter((width): width is number => width !== null);
  if (!known.length) return null;
  return 1000 * median(known, 0);
}

/** Mean contrast of the rim just outside a cell, beyond the camera's blur. */
function haloOf(picture: LevelPicture, { design }: CouponLayout, { xMm, yMm }: CouponCell, bare: number): number {
  const { widthMm: w, heightMm: h } = design.cell;
  const gap = Math.max(design.gapMm, 0.5);
  const [near, far] = [Math.min(0.3, 0.3 * gap), 0.45 * gap];
  const rims: Box[] = [
    { x0: xMm - far, x1: xMm - near, y0: yMm + 0.1 * h, y1: yMm + 0.9 * h },
    { x0: xMm + w + near, x1: xMm + w + far, y0: yMm + 0.1 * h, y1: yMm + 0.9 * h },
    { x0: xMm + 0.1 * w, x1: xMm + 0.9 * w, y0: yMm + h + near, y1: yMm + h + far },
  ];
  const steps = rims.flatMap((rim) => {
    const pixels = pixelsIn(picture, rim);
    return pixels.length ? [bare - median(lightnessOf(picture, pixels))] : [];
  });
  return steps.length ? median(steps) : 0;
}
