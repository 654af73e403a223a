import type { BurnSetup } from '@unto/contract';
import type { CoatTruth } from './coat-truth.js';

/** Which compound (its name; empty for none) on which ground under which beam. */
export interface Pairing extends Pick<BurnSetup, 'family' | 'layer' | 'beam'> {
  readonly compound: string;
}

const STAINLESS = { conductivity: 0.0162, diffusivity: 4.05 };
const CO2 = { radiusMm: 0.0825 };

/** The hidden behaviour behind each made-up pairing. Only outcomes come of it; no screen reads it. */
export const GROUND_TRUTHS = {
  corvidStainless: {
    pairing: { compound: 'Corvid Film', family: 'stainless', layer: 'bare', beam: 'co2' },
    ...STAINLESS,
    ...CO2,
    bondsAt: { powerW: 50.6, speedMmPerS: 240, intervalMm: 0.06 },
    widthLn: 1.15,
    heatShare: 0.55,
    sprayNoise: 0.08,
  },
  corvidBrass: {
    pairing: { compound: 'Corvid Film', family: 'brass', layer: 'bare', beam: 'co2' },
    conductivity: 0.121,
    diffusivity: 37.6,
    ...CO2,
    bondsAt: { powerW: 50.6, speedMmPerS: 230, intervalMm: 0.06 },
    widthLn: 0.95,
    heatShare: 0.6,
    sprayNoise: 0.1,
  },
  soothollowAluminium: {
    pairing: { compound: 'Soothollow', family: 'aluminium', layer: 'bare', beam: 'co2' },
    conductivity: 0.172,
    diffusivity: 71,
    ...CO2,
    bondsAt: { powerW: 50.6, speedMmPerS: 190, intervalMm: 0.05 },
    widthLn: 0.8,
    heatShare: 0.6,
    sprayNoise: 0.14,
  },
  soothollowStainless: {
    pairing: { compound: 'Soothollow', family: 'stainless', layer: 'bare', beam: 'co2' },
    ...STAINLESS,
    ...CO2,
    bondsAt: { powerW: 50.6, speedMmPerS: 330, intervalMm: 0.06 },
    widthLn: 1.05,
    heatShare: 0.5,
    sprayNoise: 0.14,
  },
  greyslipStainless: {
    pairing: { compound: 'Greyslip Dry Film', family: 'stainless', layer: 'bare', beam: 'co2' },
    ...STAINLESS,
    ...CO2,
    bondsAt: { powerW: 50.6, speedMmPerS: 62, intervalMm: 0.06 },
    widthLn: 0.7,
    heatShare: 0.5,
    sprayNoise: 0.16,
  },
  lampglazeGlass: {
    pairing: { compound: 'Lampglaze Jar', family: 'glass', layer: 'bare', beam: 'co2' },
    conductivity: 0.0012,
    diffusivity: 0.65,
    ...CO2,
    bondsAt: { powerW: 14, speedMmPerS: 160, intervalMm: 0.08 },
    widthLn: 0.75,
    heatShare: 0.5,
    sprayNoise: 0.1,
  },
  lampglazeStoneware: {
    pairing: { compound: 'Lampglaze Jar', family: 'glazed ceramic', layer: 'bare', beam: 'co2' },
    conductivity: 0.0013,
    diffusivity: 0.7,
    ...CO2,
    bondsAt: { powerW: 20, speedMmPerS: 150, intervalMm: 0.08 },
    widthLn: 0.9,
    heatShare: 0.5,
    sprayNoise: 0.1,
  },
  ternwhiteEnamel: {
    pairing: { compound: 'Ternwhite Concentrate', family: 'vitreous enamel', layer: 'bare', beam: 'co2' },
    conductivity: 0.001,
    diffusivity: 0.5,
    ...CO2,
    bondsAt: { powerW: 24, speedMmPerS: 170, intervalMm: 0.07 },
    widthLn: 0.9,
    heatShare: 0.5,
    sprayNoise: 0.09,
  },
  lampglazeEnamel: {
    pairing: { compound: 'Lampglaze Jar', family: 'vitreous enamel', layer: 'bare', beam: 'co2' },
    conductivity: 0.001,
    diffusivity: 0.5,
    ...CO2,
    bondsAt: { powerW: 20, speedMmPerS: 125, intervalMm: 0.08 },
    widthLn: 0.8,
    heatShare: 0.5,
    sprayNoise: 0.09,
  },
  ternwhiteGlass: {
    pairing: { compound: 'Ternwhite Concentrate', family: 'glass', layer: 'bare', beam: 'co2' },
    conductivity: 0.00105,
    diffusivity: 0.5,
    ...CO2,
    bondsAt: { powerW: 16, speedMmPerS: 150, intervalMm: 0.08 },
    widthLn: 0.75,
    heatShare: 0.5,
    sprayNoise: 0.1,
  },
  corvidAluminium: {
    pairing: { compound: 'Corvid Film', family: 'aluminium', layer: 'bare', beam: 'co2' },
    conductivity: 0.172,
    diffusivity: 71,
    ...CO2,
    bondsAt: { powerW: 50.6, speedMmPerS: 85, intervalMm: 0.06 },
    widthLn: 0.9,
    heatShare: 0.6,
    sprayNoise: 0.1,
  },
  corvidCopper: {
    pairing: { compound: 'Corvid Film', family: 'copper', layer: 'bare', beam: 'co2' },
    conductivity: 0.391,
    diffusivity: 113,
    ...CO2,
    bondsAt: { powerW: 47, speedMmPerS: 150, intervalMm: 0.06 },
    widthLn: 0.9,
    heatShare: 0.65,
    sprayNoise: 0.1,
  },
  soothollowBrass: {
    pairing: { compound: 'Soothollow', family: 'brass', layer: 'bare', beam: 'co2' },
    conductivity: 0.121,
    diffusivity: 37.6,
    ...CO2,
    bondsAt: { powerW: 50.6, speedMmPerS: 300, intervalMm: 0.06 },
    widthLn: 1,
    heatShare: 0.6,
    sprayNoise: 0.14,
  },
  fibreAluminium: {
    pairing: { compound: '', family: 'aluminium', layer: 'bare', beam: 'near-infrared' },
    conductivity: 0.172,
    diffusivity: 71,
    radiusMm: 0.0225,
    bondsAt: { powerW: 20, speedMmPerS: 900, intervalMm: 0.03 },
    widthLn: 1.2,
    heatShare: 0.5,
    sprayNoise: 0.07,
  },
  blueStakes: {
    pairing: { compound: '', family: 'steel', layer: 'painted', beam: 'blue' },
    conductivity: 0.052,
    diffusivity: 13.6,
    radiusMm: 0.0447,
    bondsAt: { powerW: 7, speedMmPerS: 110, intervalMm: 0.09 },
    widthLn: 1.1,
    heatShare: 0.4,
    sprayNoise: 0.12,
  },
  russetStainless: {
    pairing: { compound: 'Russet Trial', family: 'stainless', layer: 'bare', beam: 'co2' },
    ...STAINLESS,
    ...CO2,
    bondsAt: { powerW: 45, speedMmPerS: 130, intervalMm: 0.06 },
    widthLn: 0.8,
    heatShare: 0.55,
    sprayNoise: 0.12,
  },
  bareAnodised: {
    pairing: { compound: '', family: 'aluminium', layer: 'anodised', beam: 'blue' },
    conductivity: 0.172,
    diffusivity: 71,
    radiusMm: 0.0447,
    bondsAt: { powerW: 10.8, speedMmPerS: 190, intervalMm: 0.07 },
    widthLn: 2.2,
    heatShare: 0.5,
    sprayNoise: 0.05,
  },
} as const satisfies Record<string, CoatTruth & { readonly pairing: Pairing }>;

export type TruthKey = keyof typeof GROUND_TRUTHS;

/** How much harder an unknown compound bonds than a known one, by its name: −0.25 to 0.25 in ln. */
function temperOf(name: string): number {
  const hash = [...name].reduce((sum, letter) => Math.imul(sum ^ letter.charCodeAt(0), 16_777_619), 0x811c9dc5) >>> 0;
  return (hash / 0xffffffff - 0.5) / 2;
}

/**
 * The hidden behaviour of a pairing: its own where it was made up, else that of a like ground with the compound's own temper. Null for
 * bare ground that this beam leaves as it is.
 */
export function truthOf(
  pairing: Pairing,
  ground: Pick<CoatTruth, 'conductivity' | 'diffusivity' | 'radiusMm'>,
): CoatTruth | null {
  const known: readonly (CoatTruth & { readonly pairing: Pairing })[] = Object.values(GROUND_TRUTHS);
  const score = ({ pairing: own }: { pairing: Pairing }) =>
    (own.beam === pairing.beam ? 8 : 0) +
    (own.compound === pairing.compound ? 4 : own.compound && pairing.compound ? 1 : 0) +
    (own.family === pairing.family ? 3 : 0) +
    (own.layer === pairing.layer ? 2 : 0);
  const nearest = known.reduce((best, one) => (score(one) > score(best) ? one : best));
  if (score(nearest) === 17) return { ...nearest, ...ground };
  if (!pairing.compound) return null;
  const temper = Math.exp(temperOf(`${pairing.compound}${pairing.family}${pairing.layer}`));
  const { bondsAt } = nearest;
  return { ...nearest, ...ground, bondsAt: { ...bondsAt, speedMmPerS: bondsAt.speedMmPerS * temper } };
}
