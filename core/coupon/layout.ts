import { CoreError } from '../support/core-error.js';
import {
  axisLabel,
  axisValues,
  checkDesign,
  type CouponDesign,
  type CouponLimits,
  type CouponParameter,
} from './design.js';
import { cellLetterMm, cellText, columnName, headText } from './captions.js';
import { textWidth, type Point } from '../lettering/label-strokes.js';
import { placeQr, type CouponQr } from './qr.js';

/** Part a cell plays: in the grid, an anchor repeated to show drift, or on the strip left uncoated. */
export type CellRole = 'grid' | 'anchor' | 'bare';

/** How one cell is fired. */
export interface CellSetting {
  readonly powerPercent: number;
  readonly speedMmPerS: number;
  readonly intervalMm: number;
  readonly frequencyKHz: number | null;
  readonly pulseNs: number | null;
  /** Null: at the coupon's own focus offset. */
  readonly focusOffsetMm: number | null;
  readonly angleDeg: number;
  readonly hatches: number;
  readonly passes: number;
  readonly coats: number;
  /** Which of the coupon's compounds, from 1. */
  readonly compound: number;
}

/** One square to be marked. Position of its lower left corner in mm from the lower left corner of the blank. */
export interface CouponCell extends CellSetting {
  /** Counted from 0 in reading order: blocks, then rows from the top, then columns; anchors and bare cells of a block after its grid. */
  readonly index: number;
  readonly role: CellRole;
  readonly block: number;
  readonly row: number;
  readonly column: number;
  readonly xMm: number;
  readonly yMm: number;
  /** False where the head cannot do it. */
  readonly reachable: boolean;
  /** Why not; null where it can. */
  readonly unreachableBecause: string | null;
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
  /** Strokes of the corner marks, burnt like labels; their outer corners are at `frame`. */
  readonly frameStrokes: readonly (readonly Point[])[];
  readonly frame: CouponFrame | null;
  readonly qr: CouponQr | null;
  /** Size that cells, labels and margins need, mm. */
  readonly needed: { readonly widthMm: number; readonly heightMm: number };
}

/** Outer corners of the corner marks, mm: from the lower left one counter-clockwise they span this box. */
export interface CouponFrame {
  readonly xMm: number;
  readonly yMm: number;
  readonly widthMm: number;
  readonly heightMm: number;
}

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
  const frame = design.frame ? frameOf(design, needed.widthMm) : null;
  const qr = placeQr(design, needed);
  return { design, cells, labels, frame, frameStrokes: frame ? cornerMarks(frame) : [], qr, needed };
}

/** Corner marks stand in the margin, this far off the edge of the blank at least, with arms of this length, mm. */
const FRAME = { off: 0.6, clear: 1.2, arm: 3, lines: 4, step: 0.15 } as const;

function frameOf({ marginMm, blank }: CouponDesign, neededMm: number): CouponFrame {
  const inset = Math.max(FRAME.off, marginMm - FRAME.clear);
  return { xMm: inset, yMm: inset, widthMm: neededMm - 2 * inset, heightMm: blank.heightMm - 2 * inset };
}

/** Every corner mark is drawn a few times side by side, so that a camera sees it. */
function cornerMarks({ xMm, yMm, widthMm, heightMm }: CouponFrame): Point[][] {
  const arm = Math.min(FRAME.arm, widthMm / 3, heightMm / 3);
  const corners = [
    [xMm, yMm, 1, 1],
    [xMm + widthMm, yMm, -1, 1],
    [xMm + widthMm, yMm + heightMm, -1, -1],
    [xMm, yMm + heightMm, 1, -1],
  ] as const;
  return corners.flatMap(([x, y, right, up]) =>
    Array.from({ length: FRAME.lines }, (_, i): Point[] => {
      const [px, py] = [x + right * i * FRAME.step, y + up * i * FRAME.step];
      return [
        [x + right * arm, py],
        [px, py],
        [px, y + up * arm],
      ];
    }),
  );
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
  /** Extra rows above, through and below the grid for the anchors. */
  readonly anchorRows: readonly number[];
  readonly blockWidth: number;
  readonly blockHeight: number;
  readonly footer: number;
}

function measure(design: CouponDesign): Grid {
  const columns = axisValues(design.axes.x);
  const rows = axisValues(design.axes.y);
  const blocks = design.axes.block ? axisValues(design.axes.block) : [Number.NaN];
  const letter = design.labels.heightMm;
  const leftMm =
    Math.max(
      ...rows.map((value, row) => textWidth(headText(design, String(row + 1), design.axes.y.parameter, value), letter)),
    ) +
    letter * 0.6;
  const headMm = letter * (design.axes.block ? 3.2 : 1.6);
  const pitchX = design.cell.widthMm + design.gapMm;
  const cellTextMm = design.labels.at === 'each' ? cellLetterMm(design, columns, rows) : 0;
  const pitchY = design.cell.heightMm + Math.max(design.gapMm, cellTextMm * 2);
  const wide = columns.length + (design.bareStrip ? 1 : 0);
  const strip = design.bareStrip ? STRIP_OFF_MM : 0;
  const blockWidth = leftMm + wide * pitchX + strip - design.gapMm + (blocks.length > 1 ? letter * 1.5 : 0);
  const anchorRows = design.anchors ? [-1, Math.floor(rows.length / 2), rows.length] : [];
  const blockHeight = headMm + (rows.length + anchorRows.length) * pitchY;
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
    anchorRows,
    blockWidth,
    blockHeight,
    footer: letter * 1.4,
  };
}

/** Room between the coated grid and the strip left uncoated, for the masking tape, mm. */
const STRIP_OFF_MM = 3;

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
  const { design, grid, blockValue, left, top, cells, labels } = task;
  const letter = design.labels.heightMm;
  const first = left + grid.leftMm;
  if (design.axes.block) {
    const text = axisLabel(design, design.axes.block.parameter, blockValue);
    labels.push({ text, xMm: first, yMm: top - letter, heightMm: letter });
  }
  grid.columns.forEach((value, column) => {
    const text = headText(design, columnName(column), design.axes.x.parameter, value);
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
    const y = rowY(task, row);
    const fits = Math.min(letter, grid.pitchY * 0.9);
    const text = headText(design, String(row + 1), design.axes.y.parameter, value);
    labels.push({ text, xMm: left, yMm: y + (design.cell.heightMm - fits) / 2, heightMm: fits });
    grid.columns.forEach((columnValue, column) => {
      const x = first + column * grid.pitchX;
      cells.push(makeCell(task, { role: 'grid', row, column, xMm: x, yMm: y }, columnValue, value));
      if (grid.cellTextMm) {
        const text = cellText(design, [column, columnValue], [row, value]);
        const centred = x + (design.cell.widthMm - textWidth(text, grid.cellTextMm)) / 2;
        labels.push({ text, xMm: centred, yMm: y - grid.cellTextMm * 1.4, heightMm: grid.cellTextMm });
      }
    });
  });
  placeAnchors(task, first);
  placeBareStrip(task, first);
}

/** Lower edge of a row; the rows at and after the middle make room for the anchor in the centre, the first for those above it. */
function rowY({ design, grid, top }: BlockTask, row: number): number {
  const before = grid.anchorRows.filter((anchor) => anchor <= row).length;
  return top - grid.headMm - (row + before) * grid.pitchY - design.cell.heightMm;
}

/** The middle setting in the four corners and the centre. */
function placeAnchors(task: BlockTask, first: number): void {
  const { grid, design, top, cells } = task;
  const middle = (values: readonly number[]) => values[Math.floor(values.length / 2)]!;
  const last = grid.columns.length - 1;
  grid.anchorRows.forEach((row, i) => {
    const y = top - grid.headMm - (row + (i === 0 ? 1 : i)) * grid.pitchY - design.cell.heightMm;
    for (const column of i === 1 ? [last / 2] : last > 0 ? [0, last] : [0]) {
      const place = { role: 'anchor', row, column, xMm: first + column * grid.pitchX, yMm: y } as const;
      cells.push(makeCell(task, place, middle(grid.columns), middle(grid.rows)));
    }
  });
}

/** Beside every row, on bare ground, its own setting at the far end of the other axis. */
function placeBareStrip(task: BlockTask, first: number): void {
  const { grid, design, cells } = task;
  if (!design.bareStrip) return;
  const column = grid.columns.length;
  const xMm = first + column * grid.pitchX + STRIP_OFF_MM;
  grid.rows.forEach((value, row) => {
    const place = { role: 'bare', row, column, xMm, yMm: rowY(task, row) } as const;
    cells.push(makeCell(task, place, grid.columns[column - 1]!, value));
  });
}

function makeCell(
  { design, limits, block, blockValue, cells }: BlockTask,
  place: Pick<CouponCell, 'role' | 'row' | 'column' | 'xMm' | 'yMm'>,
  x: number,
  y: number,
): CouponCell {
  const { fixed, axes } = design;
  const setting: Record<CouponParameter, number | null> = {
    power: fixed.powerPercent,
    speed: fixed.speedMmPerS,
    interval: fixed.intervalMm,
    frequency: fixed.frequencyKHz,
    pulse: fixed.pulseNs,
    focus: null,
    angle: design.hatchAngleDeg,
    hatches: design.hatches,
    passes: design.passes,
    coats: 1,
    compound: 1,
  };
  if (axes.block) setting[axes.block.parameter] = blockValue;
  setting[axes.x.parameter] = x;
  setting[axes.y.parameter] = y;
  const because = unreachable(setting, limits);
  return {
    index: cells.length,
    block,
    ...place,
    powerPercent: setting.power!,
    speedMmPerS: setting.speed!,
    intervalMm: setting.interval!,
    frequencyKHz: setting.frequency,
    pulseNs: setting.pulse,
    focusOffsetMm: setting.focus,
    angleDeg: setting.angle!,
    hatches: setting.hatches!,
    passes: setting.passes!,
    coats: setting.coats!,
    compound: setting.compound!,
    reachable: because === null,
    unreachableBecause: because,
  };
}

function unreachable(
  { power, frequency, pulse }: Record<CouponParameter, number | null>,
  { firingThresholdPercent, frequencyKHz, pulseNs }: CouponLimits,
): string | null {
  if (power! < firingThresholdPercent) return `does not fire below ${firingThresholdPercent} %`;
  const outside = (value: number | null, range: CouponLimits['pulseNs']) =>
    value !== null && range !== undefined && (value < range.low || value > range.high);
  if (outside(frequency, frequencyKHz)) return `runs from ${frequencyKHz!.low} to ${frequencyKHz!.high} kHz`;
  if (outside(pulse, pulseNs)) return `pulses from ${pulseNs!.low} to ${pulseNs!.high} ns`;
  return null;
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
