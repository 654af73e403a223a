import { TZDate } from '@date-fns/tz';
import { addDays, differenceInCalendarDays, format } from 'date-fns';

const DAY = 'yyyy-MM-dd';

/**
 * The calendar day of a moment where the shop is, YYYY-MM-DD.
 * @param timeZone IANA name
 * @example dayOf(new Date('2026-03-01T23:30:00Z'), 'Europe/Berlin') // '2026-03-02'
 */
export function dayOf(moment: Date, timeZone: string): string {
  return format(new TZDate(moment, timeZone), DAY);
}

/** Whole calendar days from one day to another, YYYY-MM-DD each; below nought when the other lies before. */
export function daysBetween(from: string, to: string): number {
  return differenceInCalendarDays(to, from);
}

/** A day so many days later. */
export function dayAfter(day: string, days: number): string {
  return format(addDays(day, days), DAY);
}

/** The last moment of a calendar day where the shop is, ISO 8601. */
export function endOfDay(day: string, timeZone: string): string {
  const [year, month, date] = day.split('-').map(Number) as [number, number, number];
  return new Date(new TZDate(year, month - 1, date, 23, 59, 59, timeZone).getTime()).toISOString();
}
