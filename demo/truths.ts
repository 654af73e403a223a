import type { CoatTruth } from '@unto/stand-ins/truth';

const STAINLESS = { conductivity: 0.0162, diffusivity: 4.05 };
const CO2 = { radiusMm: 0.0825 };

/** The hidden behaviour behind each made-up pairing. Only outcomes come of it; no screen reads it. */
export const TRUTHS = {
  corvidStainless: {
    ...STAINLESS,
    ...CO2,
    bondsAt: { powerW: 50.6, speedMmPerS: 240, intervalMm: 0.06 },
    widthLn: 1.15,
    heatShare: 0.55,
    sprayNoise: 0.08,
  },
  corvidBrass: {
    conductivity: 0.121,
    diffusivity: 37.6,
    ...CO2,
    bondsAt: { powerW: 50.6, speedMmPerS: 230, intervalMm: 0.06 },
    widthLn: 0.95,
    heatShare: 0.6,
    sprayNoise: 0.1,
  },
  soothollowAluminium: {
    conductivity: 0.172,
    diffusivity: 71,
    ...CO2,
    bondsAt: { powerW: 50.6, speedMmPerS: 190, intervalMm: 0.05 },
    widthLn: 0.8,
    heatShare: 0.6,
    sprayNoise: 0.14,
  },
  soothollowStainless: {
    ...STAINLESS,
    ...CO2,
    bondsAt: { powerW: 50.6, speedMmPerS: 330, intervalMm: 0.06 },
    widthLn: 1.05,
    heatShare: 0.5,
    sprayNoise: 0.14,
  },
  greyslipStainless: {
    ...STAINLESS,
    ...CO2,
    bondsAt: { powerW: 50.6, speedMmPerS: 62, intervalMm: 0.06 },
    widthLn: 0.7,
    heatShare: 0.5,
    sprayNoise: 0.16,
  },
  lampglazeGlass: {
    conductivity: 0.0012,
    diffusivity: 0.65,
    ...CO2,
    bondsAt: { powerW: 14, speedMmPerS: 160, intervalMm: 0.08 },
    widthLn: 0.75,
    heatShare: 0.5,
    sprayNoise: 0.1,
  },
  lampglazeStoneware: {
    conductivity: 0.0013,
    diffusivity: 0.7,
    ...CO2,
    bondsAt: { powerW: 20, speedMmPerS: 150, intervalMm: 0.08 },
    widthLn: 0.9,
    heatShare: 0.5,
    sprayNoise: 0.1,
  },
  ternwhiteEnamel: {
    conductivity: 0.001,
    diffusivity: 0.5,
    ...CO2,
    bondsAt: { powerW: 24, speedMmPerS: 170, intervalMm: 0.07 },
    widthLn: 0.9,
    heatShare: 0.5,
    sprayNoise: 0.09,
  },
  lampglazeEnamel: {
    conductivity: 0.001,
    diffusivity: 0.5,
    ...CO2,
    bondsAt: { powerW: 20, speedMmPerS: 125, intervalMm: 0.08 },
    widthLn: 0.8,
    heatShare: 0.5,
    sprayNoise: 0.09,
  },
  ternwhiteGlass: {
    conductivity: 0.00105,
    diffusivity: 0.5,
    ...CO2,
    bondsAt: { powerW: 16, speedMmPerS: 150, intervalMm: 0.08 },
    widthLn: 0.75,
    heatShare: 0.5,
    sprayNoise: 0.1,
  },
  corvidAluminium: {
    conductivity: 0.172,
    diffusivity: 71,
    ...CO2,
    bondsAt: { powerW: 50.6, speedMmPerS: 85, intervalMm: 0.06 },
    widthLn: 0.9,
    heatShare: 0.6,
    sprayNoise: 0.1,
  },
  corvidCopper: {
    conductivity: 0.391,
    diffusivity: 113,
    ...CO2,
    bondsAt: { powerW: 47, speedMmPerS: 150, intervalMm: 0.06 },
    widthLn: 0.9,
    heatShare: 0.65,
    sprayNoise: 0.1,
  },
  soothollowBrass: {
    conductivity: 0.121,
    diffusivity: 37.6,
    ...CO2,
    bondsAt: { powerW: 50.6, speedMmPerS: 300, intervalMm: 0.06 },
    widthLn: 1,
    heatShare: 0.6,
    sprayNoise: 0.14,
  },
  fibreAluminium: {
    conductivity: 0.172,
    diffusivity: 71,
    radiusMm: 0.0225,
    bondsAt: { powerW: 20, speedMmPerS: 900, intervalMm: 0.03 },
    widthLn: 1.2,
    heatShare: 0.5,
    sprayNoise: 0.07,
  },
  blueStakes: {
    conductivity: 0.052,
    diffusivity: 13.6,
    radiusMm: 0.0447,
    bondsAt: { powerW: 7, speedMmPerS: 110, intervalMm: 0.09 },
    widthLn: 1.1,
    heatShare: 0.4,
    sprayNoise: 0.12,
  },
  russetStainless: {
    ...STAINLESS,
    ...CO2,
    bondsAt: { powerW: 45, speedMmPerS: 130, intervalMm: 0.06 },
    widthLn: 0.8,
    heatShare: 0.55,
    sprayNoise: 0.12,
  },
  bareAnodised: {
    conductivity: 0.172,
    diffusivity: 71,
    radiusMm: 0.0447,
    bondsAt: { powerW: 10.8, speedMmPerS: 190, intervalMm: 0.07 },
    widthLn: 2.2,
    heatShare: 0.5,
    sprayNoise: 0.05,
  },
} as const satisfies Record<string, CoatTruth>;

export type TruthKey = keyof typeof TRUTHS;

/** How marks of a pairing look when they are right, by eye, and how long a piece takes to clean (minutes). */
export interface DemoLook {
  readonly contrast: number;
  readonly evenness: number;
  readonly cleanMinutes: number;
}

export const LOOKS: Record<TruthKey, DemoLook> = {
  corvidStainless: { contrast: 4.1, evenness: 4.2, cleanMinutes: 0.45 },
  corvidBrass: { contrast: 3.9, evenness: 3.8, cleanMinutes: 0.5 },
  corvidAluminium: { contrast: 3.4, evenness: 3.9, cleanMinutes: 0.5 },
  corvidCopper: { contrast: 3.8, evenness: 3.8, cleanMinutes: 0.55 },
  soothollowAluminium: { contrast: 4.5, evenness: 3.2, cleanMinutes: 0.6 },
  soothollowStainless: { contrast: 4.7, evenness: 3.4, cleanMinutes: 0.55 },
  soothollowBrass: { contrast: 4.5, evenness: 3.3, cleanMinutes: 0.6 },
  greyslipStainless: { contrast: 2.9, evenness: 2.7, cleanMinutes: 4.4 },
  lampglazeGlass: { contrast: 4.4, evenness: 4.3, cleanMinutes: 0.7 },
  lampglazeStoneware: { contrast: 4.2, evenness: 4.1, cleanMinutes: 0.8 },
  lampglazeEnamel: { contrast: 4.6, evenness: 4.4, cleanMinutes: 0.7 },
  ternwhiteEnamel: { contrast: 3.9, evenness: 4, cleanMinutes: 0.9 },
  ternwhiteGlass: { contrast: 3.7, evenness: 3.8, cleanMinutes: 0.9 },
  russetStainless: { contrast: 2.8, evenness: 3.4, cleanMinutes: 0.6 },
  fibreAluminium: { contrast: 3.4, evenness: 3.8, cleanMinutes: 0.1 },
  blueStakes: { contrast: 3.6, evenness: 3.1, cleanMinutes: 0.7 },
  bareAnodised: { contrast: 4.2, evenness: 4.6, cleanMinutes: 0.25 },
};
