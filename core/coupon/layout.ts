import { CoreError } from '../support/core-error.js';
import { axisValues, checkDesign, type CouponDesign, type CouponLimits, type CouponParameter } from './design.js';
import { textWidth } from './label-strokes.js';

/** One square to be marked. Position of its lower left corner in mm from the lower left corner of the blank. */
export interface CouponCell {
  /** Counted from 0 in reading order: blocks, then rows from the top, then columns. */
  readonly index: number;
  readonly block: number;
  readonly row: number;
  readonly column: number;
  readonly xMm: number;
  readonly yMm: number;
  readonly powerPercent: number;
  readonly speedMmPerS: number;
  readonly intervalMm: number;
  /** False where the head does not fire at this power. */
  readonly reachable: boolean;
}

/** Text to burn; x, y is the lower left corner of its first letter. */
export interface CouponLabel {
  readonly text: string;
  readonly xMm: number;
  readonly yMm: number;
  readonly heightMm: number;
}

/** A coupon laid out on its blank. */
export interface CouponLayout {
  readonly design: CouponDesign;
  readonly cells: readonly CouponCell[];
  readonly labels: readonly CouponLabel[];
  /** Size that cells, labels and margins need, mm. */
  readonly needed: { readonly widthMm: number; readonly heightMm: number };
}

/** Letters below this cannot be read after the scrub (common practice, no source). */
const SMALLEST_LETTER_MM = 0.6;

/**
 * Lays a coupon out: blocks side by side (as many in a row as the blank takes), labels at rows, columns and on request under each
 * cell, the code in the last line.
 * @throws coupon.does-not-fit-blank, coupon.does-not-fit-bed, and what checkDesign throws
 */
export function layoutCoupon(design: CouponDesign, limits: CouponLimits): CouponLayout {
  checkDesign(design, limits);
  const grid = measure(design);
  const needed = {
    widthMm: grid.perRow * grid.blockWidth + 2 * design.marginMm,
    heightMm: Math.ceil(grid.blocks.length / grid.perRow) * grid.blockHeight + grid.footer + 2 * design.marginMm,
  };
  refuseIfTooLarge(design, limits, needed);
  const cells: CouponCell[] = [];
  const labels: CouponLabel[] = [];
  grid.blocks.forEach((blockValue, block) => {
    const left = design.marginMm + (block % grid.perRow) * grid.blockWidth;
    const top = design.blank.heightMm - design.marginMm - Math.floor(block / grid.perRow) * grid.blockHeight;
    placeBlock({ design, limits, grid, block, blockValue, left, top, cells, labels });
  });
  labels.push({ text: design.code, xMm: design.marginMm, yMm: design.marginMm, heightMm: design.labels.heightMm });
  return { design, cells, labels, needed };
}

/** Label of a value: short, without trailing zeros. */
export function labelText(value: number): string {
  return String(Number(value.toPrecision(3)));
}

interface Grid {
  readonly columns: number[];
  readonly rows: number[];
  readonly blocks: number[];
  readonly perRow: number;
  readonly leftMm: number;
  readonly headMm: number;
  readonly pitchX: number;
  readonly pitchY: number;
  readonly cellTextMm: number;
  readonly blockWidth: number;
  readonly blockHeight: number;
  readonly footer: number;
}

function measure(design: CouponDesign): Grid {
  const columns = axisValues(design.axes.x);
  const rows = axisValues(design.axes.y);
  const blocks = design.axes.block ? axisValues(design.axes.block) : [Number.NaN];
  const letter = design.labels.heightMm;
  const leftMm = Math.max(...rows.map((value) => textWidth(labelText(value), letter))) + letter * 0.6;
  const headMm = letter * (design.axes.block ? 3.2 : 1.6);
  const pitchX = design.cell.widthMm + design.gapMm;
  const cellTextMm = design.labels.at === 'each' ? cellLetterMm(design, columns, rows) : 0;
  const pitchY = design.cell.heightMm + Math.max(design.gapMm, cellTextMm * 2);
  const blockWidth = leftMm + columns.length * pitchX - design.gapMm + (blocks.length > 1 ? letter * 1.5 : 0);
  const blockHeight = headMm + rows.length * pitchY;
  const room = design.blank.widthMm - 2 * design.marginMm;
  const perRow = Math.min(blocks.length, Math.max(1, Math.floor((room + 1e-9) / blockWidth)));
  return {
    columns,
    rows,
    blocks,
    perRow,
    leftMm,
    headMm,
    pitchX,
    pitchY,
    cellTextMm,
    blockWidth,
    blockHeight,
    footer: letter * 1.4,
  };
}

function cellLetterMm(design: CouponDesign, columns: number[], rows: number[]): number {
  const widest = Math.max(...columns.flatMap((x) => rows.map((y) => textWidth(cellText(x, y), 1))));
  const letter = Math.min(design.labels.heightMm, (design.cell.widthMm + design.gapMm * 0.3) / widest);
  if (letter < SMALLEST_LETTER_MM) {
    throw new CoreError(
      'coupon.does-not-fit-blank',
      `A label under each cell would be ${letter.toFixed(2)} mm high, too small to read: widen the cells or label rows and columns only.`,
      { path: 'labels' },
    );
  }
  return letter;
}

function cellText(x: number, y: number): string {
  return `${labelText(x)}/${labelText(y)}`;
}

interface BlockTask {
  readonly design: CouponDesign;
  readonly limits: CouponLimits;
  readonly grid: Grid;
  readonly block: number;
  readonly blockValue: number;
  readonly left: number;
  readonly top: number;
  readonly cells: CouponCell[];
  readonly labels: CouponLabel[];
}

function placeBlock(task: BlockTask): void {
  const { design, grid, block, blockValue, left, top, cells, labels } = task;
  const letter = design.labels.heightMm;
  const first = left + grid.leftMm;
  if (design.axes.block) {
    labels.push({ text: labelText(blockValue), xMm: first, yMm: top - letter, heightMm: letter });
  }
  grid.columns.forEach((value, column) => {
    const text = labelText(value);
    const centre = first + column * grid.pitchX + design.cell.widthMm / 2;
    const fits = Math.min(letter, (grid.pitchX * 0.95) / textWidth(text, 1));
    labels.push({
      text,
      xMm: centre - textWidth(text, fits) / 2,
      yMm: top - grid.headMm + letter * 0.4,
      heightMm: fits,
    });
  });
  grid.rows.forEach((value, row) => {
    const y = top - grid.headMm - row * grid.pitchY - design.cell.heightMm;
    const fits = Math.min(letter, grid.pitchY * 0.9);
    labels.push({ text: labelText(value), xMm: left, yMm: y + (design.cell.heightMm - fits) / 2, heightMm: fits });
    grid.columns.forEach((columnValue, column) => {
      const x = first + column * grid.pitchX;
      cells.push(makeCell(task, { index: cells.length, block, row, column, xMm: x, yMm: y }, columnValue, value));
      if (grid.cellTextMm) {
        const text = cellText(columnValue, value);
        const centred = x + (design.cell.widthMm - textWidth(text, grid.cellTextMm)) / 2;
        labels.push({ text, xMm: centred, yMm: y - grid.cellTextMm * 1.4, heightMm: grid.cellTextMm });
      }
    });
  });
}

function makeCell(
  { design, limits, blockValue }: BlockTask,
  place: Pick<CouponCell, 'index' | 'block' | 'row' | 'column' | 'xMm' | 'yMm'>,
  x: number,
  y: number,
): CouponCell {
  const setting: Record<CouponParameter, number> = {
    power: design.fixed.powerPercent,
    speed: design.fixed.speedMmPerS,
    interval: design.fixed.intervalMm,
  };
  if (design.axes.block) setting[design.axes.block.parameter] = blockValue;
  setting[design.axes.x.parameter] = x;
  setting[design.axes.y.parameter] = y;
  return {
    ...place,
    powerPercent: setting.power,
    speedMmPerS: setting.speed,
    intervalMm: setting.interval,
    reachable: setting.power >= limits.firingThresholdPercent,
  };
}

function refuseIfTooLarge(design: CouponDesign, limits: CouponLimits, needed: CouponLayout['needed']): void {
  const size = `${needed.widthMm.toFixed(1)} × ${needed.heightMm.toFixed(1)} mm`;
  const { blank } = design;
  if (needed.widthMm > blank.widthMm + 1e-9 || needed.heightMm > blank.heightMm + 1e-9) {
    throw new CoreError(
      'coupon.does-not-fit-blank',
      `The coupon needs ${size}; the blank is ${blank.widthMm} × ${blank.heightMm} mm. Make cells or gaps smaller, or take fewer steps.`,
      { path: 'blank' },
    );
  }
  if (blank.widthMm > limits.bed.widthMm || blank.heightMm > limits.bed.heightMm) {
    throw new CoreError(
      'coupon.does-not-fit-bed',
      `The blank, ${blank.widthMm} × ${blank.heightMm} mm, is larger than the bed, ${limits.bed.widthMm} × ${limits.bed.heightMm} mm.`,
      { path: 'blank' },
    );
  }
}
