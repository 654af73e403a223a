import { describe, expect, it } from 'vitest';
import { dayAfter, dayOf, daysBetween, endOfDay } from './day-of.js';

describe('days are the shop’s own', () => {
  it.each([
    ['2026-03-01T23:30:00Z', 'Europe/Berlin', '2026-03-02'],
    ['2026-03-01T23:30:00Z', 'UTC', '2026-03-01'],
    ['2026-03-02T03:00:00Z', 'America/New_York', '2026-03-01'],
    ['2026-06-30T14:30:00Z', 'Pacific/Kiritimati', '2026-07-01'],
  ])('%s in %s is %s', (moment, zone, day) => expect(dayOf(new Date(moment), zone)).toBe(day));

  it('counts over the change of clocks and the end of February', () => {
    expect(daysBetween('2026-03-28', '2026-03-30')).toBe(2);
    expect(daysBetween('2028-02-28', '2028-03-01')).toBe(2);
    expect(daysBetween('2026-03-01', '2026-02-27')).toBe(-2);
    expect(dayAfter('2026-10-24', 2)).toBe('2026-10-26');
    expect(endOfDay('2026-03-29', 'Europe/Berlin')).toBe('2026-03-29T21:59:59.000Z');
    expect(endOfDay('2026-01-10', 'America/New_York')).toBe('2026-01-11T04:59:59.000Z');
  });
});
