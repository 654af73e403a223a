import type { BurnSetup } from '@unto/contract';

/** How ground, mark and over-fired mark throw light back: linear red, green, blue, 0 to 1. Invented. */
export interface Looks {
  readonly ground: readonly [number, number, number];
  readonly mark: readonly [number, number, number];
  readonly scorch: readonly [number, number, number];
  /** Spread of the ground from place to place, as a share. */
  readonly texture: number;
}

const GROUNDS: Partial<Record<BurnSetup['family'], readonly [number, number, number]>> = {
  stainless: [0.47, 0.47, 0.46],
  steel: [0.4, 0.4, 0.39],
  brass: [0.55, 0.42, 0.19],
  copper: [0.55, 0.3, 0.2],
  aluminium: [0.55, 0.55, 0.56],
  glass: [0.68, 0.71, 0.7],
  'glazed ceramic': [0.42, 0.46, 0.38],
  'vitreous enamel': [0.72, 0.72, 0.7],
};
const DARK: readonly [number, number, number] = [0.03, 0.03, 0.032];
const PALE: readonly [number, number, number] = [0.42, 0.42, 0.4];

export function inspectionOf({ family, ground }: Pick<BurnSetup, 'family' | 'ground'>): Looks {
  if (ground === 'dark') return { ground: DARK, mark: PALE, scorch: [0.2, 0.17, 0.13], texture: 0.05 };
  return {
    ground: GROUNDS[family] ?? [0.5, 0.5, 0.5],
    mark: [0.019, 0.018, 0.017],
    scorch: [0.16, 0.095, 0.045],
    texture: ground === 'clear' ? 0.015 : 0.03,
  };
}
