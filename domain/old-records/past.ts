import type { PastOutcome, PastRun } from '@unto/contract';

/** Orders that days are written in; one of them stands as the unit of a column of days. */
export const DAY_ORDERS = ['year first', 'day first', 'month first'] as const;
export type DayOrder = (typeof DAY_ORDERS)[number];

const PARTS = /(\d{1,4})\s*[-./]\s*(\d{1,2})\s*[-./]\s*(\d{1,4})/;
const numbersIn = (text: string) => PARTS.exec(text)?.slice(1).map(Number) ?? null;

/** The order in which the days of a column are written; '' where they could be read in two ways, so that it is asked. */
export function dayOrderOf(cells: readonly string[]): DayOrder | '' {
  const found = cells.map(numbersIn).filter((numbers) => numbers !== null);
  if (found.some(([first]) => first! > 31)) return 'year first';
  if (found.some(([first]) => first! > 12)) return 'day first';
  if (found.some(([, second]) => second! > 12)) return 'month first';
  // Dots part a day from its month where the day stands first.
  return cells.some((cell) => /^\s*\d{1,2}\.\s*\d{1,2}\./.test(cell)) ? 'day first' : '';
}

/**
 * A day as written, YYYY-MM-DD; a year of two digits is of this century.
 * @returns what is wrong with it, for a day that there is not, or that could be either of two
 */
export function dayIn(text: string, order: string): { readonly on: string } | { readonly fault: string } {
  const numbers = numbersIn(text);
  if (!numbers) return { fault: `“${text}” is no day.` };
  const [first, second, third] = numbers as [number, number, number];
  if (!order) return { fault: `“${text}” could be two days: say whether the day or the month stands first.` };
  const [year, month, day] =
    order === 'year first'
      ? [first, second, third]
      : [third, ...(order === 'day first' ? [second, first] : [first, second])];
  const whole = year! < 100 ? 2000 + year! : year!;
  const on = [whole, month, day].map((part) => String(part).padStart(2, '0')).join('-');
  const time = new Date(`${on}T00:00:00Z`);
  const real = !Number.isNaN(time.getTime()) && time.toISOString().startsWith(on);
  return real ? { on } : { fault: `“${text}” is no day of the calendar.` };
}

/** Words that sheets have for how a mark came out; the first that is found counts. */
const OUTCOMES: readonly (readonly [PastOutcome, RegExp])[] = [
  [
    'lost',
    /lost|not hold|not work|wash|came off|fail|\bbad\b|\bno\b|burn|scorch|unusable|schlecht|abgewaschen|mauvais|\bmalo\b/,
  ],
  ['partly', /part|faint|pale|weak|patch|light|uneven|so-so|mediocre|teil|blass|faible/],
  [
    'held',
    /held|hold|good|great|perfect|excellent|permanent|works?\b|\bok(ay)?\b|\byes\b|black|gut\b|bien\b|bon\b|buono/,
  ],
];

/** How a mark came out by the words for it; null where they say neither. */
export const outcomeIn = (text: string): PastOutcome | null =>
  OUTCOMES.find(([, words]) => words.test(text.toLowerCase()))?.[0] ?? null;

/** What a line says of the run that it is of; null where it says nothing, and only states a setting. */
export const pastOf = (past: PastRun): PastRun | null =>
  Object.values(past).some((value) => value !== null) ? past : null;

export const PAST_OUTCOME_WORDS: Record<PastOutcome, string> = {
  held: 'held',
  partly: 'held in part',
  lost: 'did not hold',
};
