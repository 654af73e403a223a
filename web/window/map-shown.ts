import type { Measure, WindowMap } from '@unto/core';

/** A value at which the map changes its tint, how deep each is, and how it is called. */
export interface MapLevel {
  readonly level: number;
  readonly opacity: number;
  readonly word: string;
}

/** What a map shows: the chance of holding, or one measure of the marks. */
export type MapOf = 'chance' | Measure;

export const MAP_WORDS: Record<MapOf, { label: string; unit: string }> = {
  chance: { label: 'chance', unit: 'of 100 hold' },
  contrast: { label: 'contrast', unit: 'L* of contrast' },
  chroma: { label: 'tint', unit: 'chroma' },
  grain: { label: 'grain', unit: 'L* of grain' },
  edgeUm: { label: 'edge', unit: 'µm of edge' },
};

const OPACITIES = [0.16, 0.3, 0.42] as const;
/** Chances of holding that have words and lines of their own. */
export const CHANCES: readonly MapLevel[] = [0.5, 0.8, 0.95].map((level, i) => ({
  ...{ level, opacity: OPACITIES[i]!, word: String(Math.round(level * 100)) },
}));

/** A map of what is shown, with its levels: of a measure, quarters of what the marks range over, in round numbers. */
export function shownMap(map: WindowMap, values: Float64Array | null): { map: WindowMap; levels: readonly MapLevel[] } {
  if (!values) return { map, levels: CHANCES };
  const sorted = values.filter(Number.isFinite).sort();
  const [low, high] = [sorted[0]!, sorted.at(-1)!];
  const step = roundStep((high - low) / 4);
  const levels = [1, 2, 3].map((quarter, i) => {
    const level = Math.round((low + ((high - low) * quarter) / 4) / step) * step;
    return { level, opacity: OPACITIES[i]!, word: String(Number(level.toPrecision(3))) };
  });
  return {
    map: { ...map, holds: values },
    levels: levels.filter(({ level }, i) => i === 0 || level > levels[i - 1]!.level),
  };
}

/** A step of 1, 2 or 5 times a power of ten, not above what is wanted. */
function roundStep(wanted: number): number {
  if (!(wanted > 0)) return 1;
  const ten = 10 ** Math.floor(Math.log10(wanted));
  return ten * (wanted >= 5 * ten ? 5 : wanted >= 2 * ten ? 2 : 1);
}
