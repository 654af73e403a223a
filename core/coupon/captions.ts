import { CoreError } from '../support/core-error.js';
import { axisLabel, axisValues, type CouponDesign, type CouponParameter } from './design.js';
import { textWidth } from '../lettering/label-strokes.js';

/** A caption of a letter and a number is read beside its cell: smaller than the values at the edges. */
const CAPTION_SHARE = 0.36;

/** Letters below this cannot be read after the scrub (common practice, no source). */
const SMALLEST_LETTER_MM = 0.6;

/** Whether labels under every cell would be tall enough to be read. @throws what axisValues throws */
export function cellLabelsFit(design: CouponDesign): boolean {
  return lettersUnderCells(design, axisValues(design.axes.x), axisValues(design.axes.y)) >= SMALLEST_LETTER_MM;
}

function lettersUnderCells(design: CouponDesign, columns: number[], rows: number[]): number {
  const widest = Math.max(
    ...columns.flatMap((x, column) => rows.map((y, row) => textWidth(cellText(design, [column, x], [row, y]), 1))),
  );
  const { heightMm, captions } = design.labels;
  const tallest = captions === 'grid' ? CAPTION_SHARE * heightMm : heightMm;
  return Math.min(tallest, (design.cell.widthMm + design.gapMm * 0.3) / widest);
}

/** Height of the captions under cells, mm. @throws coupon.does-not-fit-blank where they would be too small to read */
export function cellLetterMm(design: CouponDesign, columns: number[], rows: number[]): number {
  const letter = lettersUnderCells(design, columns, rows);
  if (letter < SMALLEST_LETTER_MM) {
    throw new CoreError(
      'coupon.does-not-fit-blank',
      `A label under each cell would be ${letter.toFixed(2)} mm high, too small to read: widen the cells or label rows and columns only.`,
      { path: 'labels' },
    );
  }
  return letter;
}

type Place = readonly [index: number, value: number];

/** What stands under a cell: the letter of its column and the number of its row, whose values stand at the edges. */
export function cellText(design: CouponDesign, [column, x]: Place, [row, y]: Place): string {
  if (design.labels.captions === 'grid') return ruled(`${columnName(column)}${row + 1}`, design);
  const { axes } = design;
  return `${axisLabel(design, axes.x.parameter, x)}/${axisLabel(design, axes.y.parameter, y)}`;
}

/** A caption with a rule behind it as long as its cell: more ink for a camera to tell by which way a coupon lies. */
function ruled(name: string, { cell, labels }: CouponDesign): string {
  const letter = CAPTION_SHARE * labels.heightMm;
  const room = (cell.widthMm - textWidth(name, letter)) / textWidth('-', letter);
  return name + '-'.repeat(Math.max(0, Math.floor(room)));
}

/** What stands at the head of a column or row: its value, behind the name that the captions of its cells use. */
export function headText(design: CouponDesign, name: string, parameter: CouponParameter, value: number): string {
  const { labels } = design;
  const text = axisLabel(design, parameter, value);
  return labels.at === 'each' && labels.captions === 'grid' ? `${name} ${text}` : text;
}

/** A to Z, then AA and on. */
export function columnName(column: number): string {
  const last = String.fromCharCode(65 + (column % 26));
  return column < 26 ? last : columnName(Math.floor(column / 26) - 1) + last;
}
