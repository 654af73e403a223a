import { commentText, feedWord, gcodeComments, powerWord, RelativeMoves, type FiringWords } from '../formats/gcode.js';
import { mmText } from '../formats/xml.js';
import { settingWords } from '../setting/setting-words.js';
import { overscan, type RowMotion } from '../time/raster.js';
import { designToken } from './embed.js';
import { burnOrder, handSetting } from './burn-order.js';
import { cellLines, lineKey } from './cell-lines.js';
import type { HatchLine } from './hatch.js';
import { labelStrokes, type Point } from '../lettering/label-strokes.js';
import type { CouponCell, CouponLayout } from './layout.js';
import { qrStrokes } from './mark-strokes.js';

/** How the controller is told to fire. */
export interface GcodeOptions extends FiringWords {
  readonly motion: RowMotion;
  /** Width of the spot, for the rows of a QR symbol, mm. */
  readonly spotMm?: number | undefined;
  /** Indices of the cells to burn and no marks: the rest of a coupon whose run broke off. All cells and marks without it. */
  readonly only?: readonly number[] | undefined;
}

/**
 * A coupon as G-code: RS-274 subset G0 G1 G21 G90 G91 M0 M3/M4 M5 S F, mm and mm/min, origin at the blank's lower left corner.
 * Every cell goes to its corner in absolute coordinates; its lines follow in relative ones, so that the text of a cell with the
 * same interval and speed is computed once. The beam is put out before every rapid move. Steps are differences of rounded absolute positions: rounding never adds up. Where a
 * person must set something between cells the program stops (M0) and says what.
 * The design itself rides in a comment and reads back with readEmbeddedDesign.
 */
export function couponGcode(layout: CouponLayout, options: GcodeOptions): string {
  return [...gcodeParts(layout, options)].join('');
}

/** The same program part by part (a label, a cell), for writing it out while it is made. */
export function* gcodeParts(layout: CouponLayout, options: GcodeOptions): Generator<string> {
  yield header(layout);
  if (!options.only) yield* marksProgram(layout, options);
  const bodies = new Map<string, string[]>();
  let set = '';
  for (const cell of burnOrder(layout)) {
    if (options.only && !options.only.includes(cell.index)) continue;
    const wanted = handSetting(cell);
    if (wanted !== set) yield `M5\n(set ${wanted || 'the focus as planned'}, then go on)\nM0\n`;
    set = wanted;
    yield cellProgram(cell, layout, options, bodies);
  }
  yield 'M5\nG90\nG0 X0 Y0\n(end)\n';
}

function* marksProgram(layout: CouponLayout, options: GcodeOptions): Generator<string> {
  for (const label of layout.labels) yield strokesProgram(`label ${label.text}`, labelStrokes(label), layout, options);
  if (layout.frame) yield strokesProgram('corner marks', layout.frameStrokes, layout, options);
  if (layout.qr) yield strokesProgram('QR', qrStrokes(layout.qr, options.spotMm), layout, options);
}

function header(layout: CouponLayout): string {
  const { design } = layout;
  return (
    `(coupon ${commentText(design.code)}, ${layout.cells.length} cells)\n` +
    `${gcodeComments(`design ${designToken(design)}`)}\n` +
    '(keep the enclosure shut; never leave a running laser)\n' +
    'G21\nG90\nM5\n'
  );
}

function strokesProgram(
  name: string,
  strokes: readonly (readonly Point[])[],
  { design }: CouponLayout,
  options: GcodeOptions,
): string {
  const s = powerWord(design.labels.powerPercent, options);
  const lines = [
    `(${commentText(name)})`,
    'G90',
    `${options.laserOn} S0`,
    `G1 F${feedWord(design.labels.speedMmPerS)}`,
  ];
  for (const stroke of strokes) {
    stroke.forEach(([x, y], i) => {
      if (i === 0) lines.push('S0', `G0 X${mmText(x)} Y${mmText(y)}`);
      else lines.push(`G1 X${mmText(x)} Y${mmText(y)}${i === 1 ? ` S${s}` : ''}`);
    });
  }
  lines.push('M5', '');
  return lines.join('\n');
}

function cellProgram(
  cell: CouponCell,
  layout: CouponLayout,
  options: GcodeOptions,
  bodies: Map<string, string[]>,
): string {
  const key = lineKey(cell);
  let body = bodies.get(key);
  if (!body) {
    body = cellBody(cell, layout, options);
    bodies.set(key, body);
  }
  const start = `S0\nG90\nG0 X${mmText(cell.xMm)} Y${mmText(cell.yMm)}\nG91\n`;
  const pass = start + body.join(` S${powerWord(cell.powerPercent, options)}`);
  const setting = commentText(settingWords(cell, layout.design.labels.reading ?? undefined));
  const name = `(cell ${cell.index + 1} block ${cell.block + 1} row ${cell.row + 1} column ${cell.column + 1}: ${setting})\n`;
  return `${name}G90\n${options.laserOn} S0\nG1 F${feedWord(cell.speedMmPerS)}\n${pass.repeat(cell.passes)}G90\nM5\n`;
}

/** Text of a cell's lines in relative moves, cut where the S word belongs. */
function cellBody(cell: CouponCell, { design }: CouponLayout, options: GcodeOptions): string[] {
  const lines = cellLines(design, cell);
  const runUp = overscan(cell.speedMmPerS, options.motion);
  const pieces: string[] = [''];
  const moves = new RelativeMoves();
  for (const line of lines) {
    const [ux, uy] = unit(line);
    const last = pieces.length - 1;
    const toStart = moves.to('G0', line.x0 - ux * runUp, line.y0 - uy * runUp);
    const runIn = runUp > 0 ? `${moves.to('G1', line.x0, line.y0)} S0\n` : '';
    // A controller may leave the beam as it is on a rapid move: without a run-out it is put out first.
    pieces[last] += `${runUp > 0 ? '' : 'S0\n'}${toStart}\n${runIn}${moves.to('G1', line.x1, line.y1)}`;
    pieces.push(runUp > 0 ? `\n${moves.to('G1', line.x1 + ux * runUp, line.y1 + uy * runUp)} S0\n` : '\n');
  }
  return pieces;
}

function unit(line: HatchLine): [number, number] {
  const length = Math.hypot(line.x1 - line.x0, line.y1 - line.y0);
  return [(line.x1 - line.x0) / length, (line.y1 - line.y0) / length];
}
