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
