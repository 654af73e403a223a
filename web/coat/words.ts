import type { FilmChange, FilmVerdict, InspectionFinding } from '@unto/core';
import type { CompoundBody } from '@unto/contract';
import { formatDuration, formatNumber } from '../ui/format';
import type { Units } from '../ui/useUnits';

export const VERDICTS: Record<FilmVerdict, string> = {
  thin: 'Too thin: it will be pale and patchy.',
  right: 'In the band.',
  thick: 'Too thick: the heat will not reach the part.',
};

/** The same where the reading leaves another open. */
export const LIKELY: Record<FilmVerdict, string> = {
  thin: 'Likely too thin.',
  right: 'Likely in the band.',
  thick: 'Likely too thick.',
};

export const FINDINGS: Record<InspectionFinding, string> = {
  'ground shows': 'the ground shows through',
  'lamp shines through': 'a lamp shines through',
  runs: 'it ran',
  lumps: 'lumps in it',
  'thin beside runs': 'thin beside runs: uneven, even where the average is right',
};

/** How a coat dries, as its compound lets it. */
export function dryingWords({ dryS, forceDry }: Pick<CompoundBody, 'dryS' | 'forceDry'>): string {
  return `by itself in ${formatDuration(dryS)}${forceDry === 'never' ? ', no fan' : ', or forced as its maker says'}`;
}

/** What to do next time, in words. */
export function changeInWords({ factor, strokes, distanceMm }: FilmChange, units: Units): string {
  const share = Math.round(Math.abs(factor - 1) * 100);
  const much = `Lay ${formatNumber(share)} % ${factor > 1 ? 'more' : 'less'}`;
  const how = [
    strokes ? `${strokes.then} strokes instead of ${strokes.now}` : '',
    distanceMm ? `the same strokes from ${units.text('length', distanceMm)}` : '',
  ].filter(Boolean);
  return how.length ? `${much}: ${how.join(', or ')}.` : `${much}, by a ${factor > 1 ? 'slower' : 'quicker'} hand.`;
}
