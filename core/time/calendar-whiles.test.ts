import { describe, expect, it } from 'vitest';
import { calendarWhiles } from './calendar-whiles.js';

const day = (text: string) => Date.parse(`${text}T12:00:00Z`);
const of = (days: string[], most: number) => {
  const { by, whiles } = calendarWhiles(days, day, most);
  return {
    by,
    from: whiles.map(({ from }) => new Date(from).toISOString().slice(0, 10)),
    own: whiles.map(({ own }) => own.length),
  };
};

describe('calendar whiles', () => {
  it('are as short as they may be, and stand where nothing was', () => {
    expect(of(['2026-03-01', '2026-03-04', '2026-03-04'], 5)).toEqual({
      ...{ by: 'day', from: ['2026-03-01', '2026-03-02', '2026-03-03', '2026-03-04'], own: [1, 0, 0, 2] },
    });
    expect(of(['2025-12-20', '2026-03-04'], 5)).toEqual({
      ...{ by: 'month', from: ['2025-12-01', '2026-01-01', '2026-02-01', '2026-03-01'], own: [1, 0, 0, 1] },
    });
    expect(of(['2025-12-20', '2026-03-04'], 2)).toMatchObject({ by: 'quarter', own: [1, 1] });
    expect(of(['2019-12-20', '2026-03-04'], 3)).toMatchObject({ by: 'year', own: [1, 0, 0, 0, 0, 0, 0, 1] });
  });

  it('begin weeks on Monday, over the turn of a year too (ISO 8601)', () => {
    expect(of(['2024-12-30', '2025-01-05', '2025-01-06', '2025-01-26'], 5)).toMatchObject({
      ...{ by: 'week', from: ['2024-12-30', '2025-01-06', '2025-01-13', '2025-01-20'], own: [2, 1, 0, 1] },
    });
  });

  it('are none of nothing, whatever order things come in', () => {
    expect(calendarWhiles([], day, 3)).toEqual({ by: 'day', whiles: [] });
    expect(of(['2026-03-04', '2026-03-01'], 9)).toEqual(of(['2026-03-01', '2026-03-04'], 9));
  });
});
