/** Codes of every error the core throws. Callers branch on the code, people read the message. */
export type CoreErrorCode =
  | 'value.not-finite'
  | 'value.not-positive'
  | 'value.negative'
  | 'value.out-of-range'
  | 'starting.out-of-reach'
  | 'unit.unknown'
  | 'unit.needs-context'
  | 'table.too-short'
  | 'table.duplicate'
  | 'table.falls'
  | 'gauge.no-metal'
  | 'gauge.unknown'
  | 'coupon.does-not-fit-blank'
  | 'coupon.does-not-fit-bed'
  | 'coupon.too-many-cells'
  | 'coupon.too-many-rows'
  | 'coupon.axes'
  | 'csv.malformed'
  | 'csv.missing-column'
  | 'csv.doubled-column'
  | 'csv.bad-cell'
  | 'csv.formula'
  | 'csv.encoding'
  | 'csv.too-large'
  | 'fit.no-data'
  | 'fit.not-converged'
  | 'weighing.reversed'
  | 'weighing.below-tare'
  | 'weighing.nothing-left'
  | 'weighing.parts-lighter'
  | 'weighing.more-than-left'
  | 'comb.reversed'
  | 'trend.too-few'
  | 'trend.one-moment'
  | 'place.too-few-points'
  | 'place.points-in-line'
  | 'place.contradiction'
  | 'place.no-waist'
  | 'place.taper-reversed'
  | 'place.too-many-strips'
  | 'place.sheet-too-small'
  | 'choose.no-options'
  | 'choose.no-weight'
  | 'identify.ruled-out'
  | 'cost.no-size'
  | 'reading.points'
  | 'reading.outside'
  | 'reading.no-contrast'
  | 'reading.damaged'
  | 'reading.no-card'
  | 'reading.two-cards'
  | 'reading.card-bent'
  | 'reading.too-coarse'
  | 'reading.blurred'
  | 'reading.no-coupon'
  | 'reading.other-coupon'
  | 'reading.no-light'
  | 'reading.glare'
  | 'reading.no-pieces'
  | 'reading.piece-count'
  | 'card.print'
  | 'card.no-white'
  | 'artwork.unreadable'
  | 'artwork.no-geometry'
  | 'artwork.no-units'
  | 'artwork.no-size'
  | 'artwork.too-large'
  | 'artwork.not-a-number'
  | 'artwork.text-too-long'
  | 'artwork.no-places';

/**
 * A refusal of the core: `code` for programs, `message` for people, `path` for the field it is about,
 * `line` for the line of a file.
 */
export class CoreError extends Error {
  readonly code: CoreErrorCode;
  readonly path: string | undefined;
  readonly line: number | undefined;

  constructor(code: CoreErrorCode, message: string, where: { path?: string; line?: number } = {}) {
    super(message);
    this.name = 'CoreError';
    this.code = code;
    this.path = where.path;
    this.line = where.line;
  }
}
