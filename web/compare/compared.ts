import { BARE, SPLIT, type Compared } from '../window/address';

/** So many windows at the most stand on one chart. */
export const MOST_COMPARED = 6;

/** What an address names, in its order; what is none of ours is left out, and what is named twice stands once. */
export function comparedIn(query: unknown): Compared[] {
  const texts = [...new Set((Array.isArray(query) ? query : [query]).filter((one) => typeof one === 'string'))];
  const found = texts.flatMap((text): Compared[] => {
    const [substrateId, headId, lensId, compoundId, lot, coats] = text
      .split(SPLIT)
      .map((part) => decodeURIComponent(part));
    if (!substrateId || !headId || !lensId || !compoundId) return [];
    return [
      {
        ...{ substrateId, headId, lensId, compoundId: compoundId === BARE ? null : compoundId },
        ...{ lot: lot || null, coats: coats ? Number(coats) : null },
      },
    ];
  });
  return found.slice(0, MOST_COMPARED);
}

/** Letter under which a window stands on chart and table. */
export const letterOf = (index: number): string => String.fromCharCode(65 + index);
