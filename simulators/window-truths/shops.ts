import { heatIndex, standardNormal, type Random } from '@unto/core';
import { logistic, twoBoundaries, within, type WindowTruth } from './truth.js';

/**
 * One compound of a shop on several metals: coats that are alike but for the metal, frozen before the pooling was tuned on them. Each
 * asks for more or less power by what the metal carries away and by a part nobody can reckon; shape and sharpness differ a little.
 */
export interface ShopWindow {
  readonly truth: WindowTruth;
  /** Conductivity W/(mm·K) and diffusivity mm²/s of the metal. */
  readonly metal: { readonly conductivity: number; readonly diffusivity: number };
}

/** Stainless, mild steel, brass, titanium-like: conductivity W/(mm·K), diffusivity mm²/s. Handbook values, from memory. */
const METALS = [
  { conductivity: 0.0162, diffusivity: 4.05 },
  { conductivity: 0.05, diffusivity: 14 },
  { conductivity: 0.12, diffusivity: 36 },
  { conductivity: 0.017, diffusivity: 7 },
];

const FORMS = ['straight', 'dose and scorch', 'bent'] as const;

/** Windows of one compound; `strange` is the share of them that follow a compound of their own. */
export function shopWindows(random: Random, count: number, strange = 0): ShopWindow[] {
  const compound = compoundOf(random);
  return Array.from({ length: count }, () =>
    windowOf(random() < strange ? compoundOf(random) : compound, METALS[Math.floor(random() * METALS.length)]!, random),
  );
}

type Compound = ReturnType<typeof compoundOf>;

function compoundOf(random: Random) {
  return {
    form: FORMS[Math.floor(random() * FORMS.length)]!,
    speed: 90 * (300 / 90) ** random(),
    byV: within(random, 0.5, 0.85),
    k: within(random, 9, 28),
    gap: within(random, 0.55, 1.1),
    heatShare: random(),
    bendAt: within(random, -0.8, 0),
  };
}

function windowOf(compound: Compound, metal: ShopWindow['metal'], random: Random): ShopWindow {
  const { form, speed, heatShare, bendAt } = compound;
  const rise = (of: ShopWindow['metal']) => heatIndex({ ...of, powerW: 1, speedMmPerS: speed, radiusMm: 0.08 });
  const more = heatShare * 0.4 * Math.log(rise(METALS[0]!) / rise(metal)) + 0.15 * standardNormal(random);
  const byV = compound.byV + 0.06 * standardNormal(random);
  const k = compound.k * Math.exp(0.2 * standardNormal(random));
  const gap = Math.max(0.3, compound.gap + 0.1 * standardNormal(random));
  const soft = (x: number) => Math.log1p(Math.exp(4 * x)) / 4;
  const wanted = (lv: number) => {
    if (form === 'dose and scorch') return lv;
    return form === 'straight' ? byV * lv : 0.15 * lv + 0.8 * (soft(lv - bendAt) - soft(-bendAt));
  };
  return {
    metal,
    truth: {
      misread: 0.02,
      chances: ({ powerW, speedMmPerS, intervalMm }) => {
        const lv = Math.log(speedMmPerS / speed);
        const lnP = Math.log(powerW / 55) - more;
        const bonded = logistic(k * (lnP - wanted(lv) - 0.8 * Math.log(intervalMm / 0.06)));
        const scorches = form === 'dose and scorch' ? gap - 0.5 : gap + (byV - 0.2) * lv;
        return twoBoundaries(bonded, logistic(k * (lnP - scorches)));
      },
    },
  };
}
