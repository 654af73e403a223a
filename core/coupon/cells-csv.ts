import { readCsv, writeCsv, type CsvRow } from '../formats/csv.js';
import { CoreError } from '../support/core-error.js';
import { speedToMmPerS, type SpeedUnit, SPEED_UNITS } from '../units/speed.js';
import { intervalToMm, INTERVAL_UNITS, type IntervalUnit } from '../units/length.js';
import { CORE_READING, fromCoreUnit, type Quantity, type UnitReading } from '../units/registry.js';
import { designToken } from './embed.js';
import type { CouponLayout } from './layout.js';
import { OUTCOME_WORDS, outcomeFromWords, type Outcome } from './outcomes.js';
import type { CellPrediction } from './predict.js';

/** Outcomes of a cell at both stages; undefined where nobody has looked yet. */
export interface CellOutcomes {
  readonly cell: number;
  readonly rinsed?: Outcome | undefined;
  readonly scrubbed?: Outcome | undefined;
}

/** Headings of what is keyed in at the machine, in the units of the labels. */
const keyedIn = ({ units }: UnitReading) => ({
  power: `power [${units.power}]`,
  speed: `speed [${units.speed}]`,
  interval: `interval [${units.interval}]`,
  focus: `focus offset [${units.length}]`,
});

const columnsOf = ({ power, speed, interval, focus }: ReturnType<typeof keyedIn>) => [
  'coupon',
  'cell',
  'block',
  'row',
  'column',
  power,
  speed,
  interval,
  'part',
  'frequency [kHz]',
  'pulse length [ns]',
  focus,
  'hatch angle [°]',
  'hatches',
  'coats',
  'compound',
  'passes',
  'power at the part [W]',
  'dose [J/mm²]',
  'heat index [K]',
  'rinsed',
  'scrubbed',
  'design',
];

/** A coupon's cells as CSV (RFC 4180), with predicted figures and the outcomes entered so far. Cells count from 1. */
export function cellsCsv(
  layout: CouponLayout,
  predictions: readonly CellPrediction[],
  outcomes: readonly CellOutcomes[],
): string {
  const byCell = new Map(outcomes.map((entry) => [entry.cell, entry]));
  const reading = layout.design.labels.reading ?? CORE_READING;
  const { units } = reading;
  const heading = keyedIn(reading);
  const read = (quantity: Quantity, value: number) =>
    rounded(fromCoreUnit(quantity, value, units[quantity], reading.scale));
  const rows = layout.cells.map((cell) => {
    const figures = predictions[cell.index]!;
    const found = byCell.get(cell.index);
    return {
      coupon: layout.design.code,
      cell: cell.index + 1,
      block: cell.block + 1,
      row: cell.row + 1,
      column: cell.column + 1,
      [heading.power]: read('power', cell.powerPercent),
      [heading.speed]: read('speed', cell.speedMmPerS),
      [heading.interval]: read('interval', cell.intervalMm),
      part: cell.role,
      'frequency [kHz]': cell.frequencyKHz,
      'pulse length [ns]': cell.pulseNs,
      [heading.focus]: cell.focusOffsetMm === null ? null : read('length', cell.focusOffsetMm),
      'hatch angle [°]': cell.angleDeg,
      hatches: cell.hatches,
      coats: cell.coats,
      compound: cell.compound,
      passes: cell.passes,
      'power at the part [W]': rounded(figures.powerW),
      'dose [J/mm²]': rounded(figures.doseJPerMm2),
      'heat index [K]': rounded(figures.heatIndexK),
      rinsed: found?.rinsed ? OUTCOME_WORDS[found.rinsed] : '',
      scrubbed: found?.scrubbed ? OUTCOME_WORDS[found.scrubbed] : '',
      // The design rides on the first line, so that the table makes the same coupon again.
      design: cell.index === 0 ? designToken(layout.design) : '',
    };
  });
  return writeCsv(columnsOf(heading), rows);
}

/**
 * Reads outcomes from a table of cells. Needed: `cell` and at least one of `rinsed`, `scrubbed`; coupon code, speed and interval
 * columns, when present, must agree with the coupon (in any known unit), so that another coupon's table is refused.
 * @throws csv.* with the line
 */
export function readCellsCsv(text: string, layout: CouponLayout): CellOutcomes[] {
  const table = readCsv(text, ['cell']);
  if (!table.columns.includes('rinsed') && !table.columns.includes('scrubbed')) {
    throw new CoreError('csv.missing-column', 'The table lacks both outcome columns, “rinsed” and “scrubbed”.', {
      line: 1,
    });
  }
  const speedColumn = unitColumn(table.columns, 'speed', SPEED_UNITS);
  const intervalColumn = unitColumn(table.columns, 'interval', INTERVAL_UNITS);
  const seen = new Map<number, number>();
  return table.rows.map((row) => {
    const index = cellNumber(row, layout) - 1;
    if (seen.has(index)) {
      throw new CoreError('csv.bad-cell', `Line ${row.line} repeats cell ${index + 1} of line ${seen.get(index)}.`, {
        line: row.line,
      });
    }
    seen.set(index, row.line);
    const cell = layout.cells[index]!;
    sameCode(row, layout.design.code);
    if (speedColumn) {
      const found = speedToMmPerS(
        numberIn(row, speedColumn.name),
        speedColumn.unit as SpeedUnit,
        layout.design.labels.reading?.scale,
      );
      agree(row, 'speed', found, cell.speedMmPerS, 'mm/s');
    }
    if (intervalColumn) {
      agree(
        row,
        'interval',
        intervalToMm(numberIn(row, intervalColumn.name), intervalColumn.unit as IntervalUnit),
        cell.intervalMm,
        'mm',
      );
    }
    return { cell: index, rinsed: outcomeIn(row, 'rinsed'), scrubbed: outcomeIn(row, 'scrubbed') };
  });
}

function unitColumn(
  columns: readonly string[],
  name: string,
  units: readonly string[],
): { name: string; unit: string } | undefined {
  const column = columns.find((text) => text === name || text.startsWith(`${name} [`));
  if (!column) return undefined;
  const unit = /\[(.*)\]$/.exec(column)?.[1] ?? '';
  if (!units.includes(unit)) {
    throw new CoreError(
      'csv.bad-cell',
      `Line 1: column “${column}” is in ${unit ? `“${unit}”` : 'no unit'}; ${name} is read in ${units.join(', ')}.`,
      {
        line: 1,
        path: name,
      },
    );
  }
  return { name: column, unit };
}

function cellNumber(row: CsvRow, layout: CouponLayout): number {
  const number = numberIn(row, 'cell');
  if (!Number.isInteger(number) || number < 1 || number > layout.cells.length) {
    throw new CoreError(
      'csv.bad-cell',
      `Line ${row.line}: there is no cell “${row.cells['cell']}”; ${layout.design.code} has cells 1 to ${layout.cells.length}.`,
      {
        line: row.line,
        path: 'cell',
      },
    );
  }
  return number;
}

function sameCode(row: CsvRow, code: string): void {
  const found = row.cells['coupon'];
  if (found && found !== code) {
    throw new CoreError('csv.bad-cell', `Line ${row.line} belongs to coupon ${found}, not to ${code}.`, {
      line: row.line,
      path: 'coupon',
    });
  }
}

function numberIn(row: CsvRow, column: string): number {
  const text = row.cells[column]?.trim() ?? '';
  const value = text === '' ? Number.NaN : Number(text);
  if (!Number.isFinite(value)) {
    throw new CoreError('csv.bad-cell', `Line ${row.line}, column “${column}”: “${text}” is not a number.`, {
      line: row.line,
      path: column,
    });
  }
  return value;
}

function agree(row: CsvRow, name: string, found: number | null, expected: number, unit: string): void {
  if (found !== null && Math.abs(found - expected) > 0.005 * expected) {
    throw new CoreError(
      'csv.bad-cell',
      `Line ${row.line}: ${name} is ${Number(found.toPrecision(4))} ${unit}, but this cell was designed at ${Number(expected.toPrecision(4))} ${unit}. Is it another coupon’s table?`,
      { line: row.line, path: name },
    );
  }
}

function outcomeIn(row: CsvRow, column: 'rinsed' | 'scrubbed'): Outcome | undefined {
  const text = row.cells[column]?.trim() ?? '';
  if (text === '') return undefined;
  const outcome = outcomeFromWords(text);
  if (!outcome) {
    throw new CoreError(
      'csv.bad-cell',
      `Line ${row.line}, column “${column}”: “${text}” is no outcome. Write ${Object.values(OUTCOME_WORDS).join(', ')}, or leave it empty.`,
      { line: row.line, path: column },
    );
  }
  return outcome;
}

function rounded(value: number | null): number | null {
  return value === null ? null : Number(value.toPrecision(4));
}
