import { BOUNDARIES, type BoundaryName, type Lesson, type LessonName } from './window-fit.js';

const OF: Record<LessonName, string> = {
  level: 'how much power',
  slope: 'how it goes with speed',
  steepness: 'how sharp it is',
};
const EDGES: Record<BoundaryName, string> = { bond: 'Bonding', over: 'Overdoing' };

/** Less is not worth a word. */
const SEEN = 0.02;

/** What earlier windows taught of a fit, an edge a sentence, with how much of what is known is theirs; empty where they taught nothing. */
export function lessonWords(lessons: readonly Lesson[]): string[] {
  return BOUNDARIES.flatMap((boundary) => {
    const own = lessons.filter((lesson) => lesson.boundary === boundary);
    const taught = own.filter(({ used, weight }) => used && weight >= SEEN);
    const refused = own.filter(({ used, apart }) => !used && apart !== null && apart > 1);
    if (!taught.length && !refused.length) return [];
    const windows = Math.max(...own.map((lesson) => lesson.windows));
    const shares = taught.map(({ of, weight }) => `${OF[of]} ${Math.round(100 * weight)} %`);
    const parts = [
      ...(shares.length
        ? [
            `of what is known, ${shares.join(', ')} from ${windows === 1 ? 'one window' : `${windows} windows`} elsewhere`,
          ]
        : []),
      ...(refused.length
        ? [`left out, for the cells here say otherwise: ${refused.map(({ of }) => OF[of]).join(', ')}`]
        : []),
    ];
    return [`${EDGES[boundary]}: ${parts.join('; ')}.`];
  });
}
