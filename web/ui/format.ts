import type { Grade } from '@unto/core';

const NARROW_SPACE = '\u202f';

/** The language of the words on screen; days and times are written its way. */
export const LOCALE = 'en-GB';

/** A number to at most four significant digits, without idle zeros: for what was entered or chosen. */
export function formatNumber(value: number, significant = 4): string {
  if (!Number.isFinite(value)) return '–';
  const digits = Number(value.toPrecision(Math.max(significant, Math.ceil(Math.log10(Math.abs(value) + 1)))));
  return grouped(String(digits).includes('e') ? digits.toFixed(6) : String(digits));
}

/** A computed or measured number with so many significant digits, zeros kept, thousands parted by a thin space, no exponent. */
export function formatFigure(value: number, significant = 3): string {
  if (!Number.isFinite(value)) return '–';
  if (value === 0) return '0';
  const rounded = Number(value.toPrecision(significant));
  const digits = Math.max(0, significant - 1 - Math.floor(Math.log10(Math.abs(rounded))));
  return grouped(rounded.toFixed(Math.min(digits, 6)));
}

function grouped(text: string): string {
  const [whole, part] = text.split('.');
  const parted = whole!.length > 4 ? whole!.replace(/\B(?=(\d{3})+$)/g, NARROW_SPACE) : whole!;
  return part ? `${parted}.${part}` : parted;
}

/** A value as entered, thin space, unit; a 0-1000 scale in words. */
export function withUnit(value: number, unit: string, significant = 4): string {
  if (unit === '0-1000') return `${formatNumber(value)} of 1000`;
  return unit ? `${formatNumber(value, significant)}${NARROW_SPACE}${unit}` : formatNumber(value, significant);
}

/** Minor units as an amount with its currency. */
export function formatMoney(minor: number, currency: string): string {
  return `${(Math.round(minor) / 100).toFixed(2)}${NARROW_SPACE}${currency}`;
}

/** Seconds as m:ss, or h:mm h from an hour up. */
export function formatTimer(seconds: number): string {
  const left = Math.max(0, Math.ceil(seconds));
  if (left >= 3600)
    return `${Math.floor(left / 3600)}:${String(Math.floor((left % 3600) / 60)).padStart(2, '0')}${NARROW_SPACE}h`;
  return `${Math.floor(left / 60)}:${String(left % 60).padStart(2, '0')}`;
}

/** A length of time in words a person would use. */
export function formatDuration(seconds: number): string {
  if (seconds < 90) return `${formatFigure(seconds, 2)}${NARROW_SPACE}s`;
  if (seconds < 5400) return `${formatTimer(seconds)}${NARROW_SPACE}min`;
  return `${Math.floor(seconds / 3600)}${NARROW_SPACE}h ${String(Math.round((seconds % 3600) / 60)).padStart(2, '0')}`;
}

export function formatDay(iso: string): string {
  return new Date(iso).toLocaleDateString(LOCALE, { day: 'numeric', month: 'short', year: 'numeric' });
}

export function formatTimeOfDay(iso: string): string {
  return new Date(iso).toLocaleTimeString(LOCALE, { hour: '2-digit', minute: '2-digit', hour12: false });
}

export function formatMoment(iso: string): string {
  return `${new Date(iso).toLocaleDateString(LOCALE, { day: 'numeric', month: 'short' })}, ${formatTimeOfDay(iso)}`;
}

/** Reads a number a person typed: comma or point, spaces anywhere; NaN when it is none. */
export function parseNumber(text: string): number {
  const plain = text.replace(/[\s\u202f\u00a0]/g, '').replace(',', '.');
  return plain === '' || !/^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i.test(plain) ? Number.NaN : Number(plain);
}

/** Word of a grade and what it says, as in the legend. */
export const GRADE_WORDS: Record<Grade, { word: string; text: string }> = {
  measured: { word: 'Measured', text: 'a direct reading, or arithmetic on readings alone' },
  proved: {
    word: 'Proved',
    text: 'scrubbed cells read from pictures hold here, on these very revisions and this very setting',
  },
  'proved by eye': {
    word: 'Proved by eye',
    text: 'the same, but judged by eye after the scrub and not read from a picture',
  },
  seen: { word: 'Seen', text: 'marked here, not scrubbed' },
  carried: { word: 'Carried', text: 'computed from a proved neighbour, or outside what was tested' },
  stated: { word: 'Stated', text: 'a label, data sheet or old note, as typed in' },
  usual: { word: 'Usual', text: 'common practice, not from this shop' },
  guess: { word: 'Guess', text: 'nothing stronger stands behind it' },
};
