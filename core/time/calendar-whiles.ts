export const CALENDAR_WHILES = ['day', 'week', 'month', 'quarter', 'year'] as const;
/** Stretches of the calendar (UTC) that what happened is gathered by. Weeks begin on Monday. */
export type CalendarWhile = (typeof CALENDAR_WHILES)[number];

/** What happened from a first moment to before another, ms since 1970. */
export interface While<T> {
  readonly from: number;
  readonly to: number;
  readonly own: readonly T[];
}

/**
 * What happened, by calendar whiles from the first to the last, those without anything between them too: as short as at most so many
 * allow; years, however many there are, where no other does.
 * @param at when each happened, ms since 1970
 * @param most 1 or more
 */
export function calendarWhiles<T>(
  all: readonly T[],
  at: (one: T) => number,
  most: number,
): { readonly by: CalendarWhile; readonly whiles: While<T>[] } {
  const moments = all.map(at);
  const [first, last] = moments.reduce(([a, b], one) => [Math.min(a, one), Math.max(b, one)], [Infinity, -Infinity]);
  if (first > last) return { by: 'day', whiles: [] };
  const by = CALENDAR_WHILES.find((one) => startOf(first, one, most) > last) ?? 'year';
  const whiles: (While<T> & { own: T[] })[] = [];
  for (let from = startOf(first, by, 0); from <= last; from = whiles.at(-1)!.to)
    whiles.push({ from, to: startOf(from, by, 1), own: [] });
  const placeOf = new Map(whiles.map(({ from }, i) => [from, i]));
  all.forEach((one, i) => whiles[placeOf.get(startOf(moments[i]!, by, 0))!]!.own.push(one));
  return { by, whiles };
}

/** The first moment of the while that a moment lies in, or of one so many later. */
function startOf(at: number, by: CalendarWhile, later: number): number {
  const day = new Date(at);
  const [year, month, date] = [day.getUTCFullYear(), day.getUTCMonth(), day.getUTCDate()];
  const monday = date - ((day.getUTCDay() + 6) % 7);
  const starts: Record<CalendarWhile, () => number> = {
    day: () => Date.UTC(year, month, date + later),
    week: () => Date.UTC(year, month, monday + 7 * later),
    month: () => Date.UTC(year, month + later, 1),
    quarter: () => Date.UTC(year, 3 * (Math.floor(month / 3) + later), 1),
    year: () => Date.UTC(year + later, 0, 1),
  };
  return starts[by]();
}
