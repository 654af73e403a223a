import type { CompoundForm, SubstrateFamily, SurfaceLayer, WavelengthClass } from '../choose/vocabulary.js';

/** What marks: a kind of compound, or the beam alone. */
export type MarkedBy = CompoundForm | 'nothing';

/** A setting usual in the trade for some materials. Power W at the part, speed mm/s, interval mm. Common practice, no source. */
export interface UsualSetting {
  readonly beam: WavelengthClass;
  readonly emission?: 'continuous' | 'pulsed';
  readonly by: readonly MarkedBy[];
  readonly families: readonly SubstrateFamily[];
  /** Any layer that counts as metal or bare where none is named. */
  readonly layers?: readonly SurfaceLayer[];
  readonly powerW: number;
  readonly speedMmPerS: { readonly low: number; readonly high: number };
  /** Null where nobody says it. */
  readonly intervalMm: number | null;
}

const METALS = ['stainless', 'steel', 'brass', 'copper', 'galvanised', 'zinc'] as const;
const CERAMICS = ['glazed ceramic', 'vitreous enamel'] as const;
const at = (low: number, high: number) => ({ low, high });

/** Power as percent of the rating where no meter stood by; speeds given in percent are of the usual top speed of that machine. */
export const USUAL_SETTINGS: readonly UsualSetting[] = [
  {
    ...{ beam: 'co2', by: ['metal film-forming', 'metal thin-laying', 'coloured metal'], families: METALS },
    ...{ powerW: 39, speedMmPerS: at(150, 250), intervalMm: 0.075 },
  },
  {
    ...{ beam: 'co2', by: ['metal film-forming', 'coloured metal'], families: ['aluminium'] },
    ...{ powerW: 39, speedMmPerS: at(40, 120), intervalMm: 0.075 },
  },
  {
    ...{ beam: 'co2', by: ['metal powder-drying'], families: METALS },
    ...{ powerW: 39, speedMmPerS: at(150, 300), intervalMm: 0.075 },
  },
  {
    ...{ beam: 'co2', by: ['metal powder-drying', 'metal thin-laying'], families: ['aluminium'] },
    ...{ powerW: 39, speedMmPerS: at(100, 175), intervalMm: 0.075 },
  },
  {
    ...{ beam: 'co2', by: ['dry-film lubricant', 'home-made coat'], families: METALS },
    ...{ powerW: 36, speedMmPerS: at(30, 40), intervalMm: null },
  },
  // 90 % of 75 W at 25 % of 800 mm/s.
  {
    ...{ beam: 'co2', by: ['universal'], families: [...METALS, 'aluminium'] },
    ...{ powerW: 67, speedMmPerS: at(150, 250), intervalMm: null },
  },
  // 20 % of 35 W at 10 % of 400 mm/s; 15 % of 75 W at half of 800 mm/s.
  {
    ...{ beam: 'co2', by: ['glass and ceramic', 'coloured glass and ceramic', 'universal'], families: ['glass'] },
    ...{ powerW: 9, speedMmPerS: at(40, 400), intervalMm: null },
  },
  // 50 % of 35 W at a quarter of 400 mm/s; 25 % of 75 W at half of 800 mm/s.
  {
    ...{ beam: 'co2', by: ['glass and ceramic', 'coloured glass and ceramic', 'universal'], families: CERAMICS },
    ...{ powerW: 18, speedMmPerS: at(100, 400), intervalMm: null },
  },
  {
    ...{ beam: 'near-infrared', emission: 'continuous', by: ['glass and ceramic'], families: ['glass', ...CERAMICS] },
    ...{ powerW: 7, speedMmPerS: at(254, 254), intervalMm: 0.0254 },
  },
  {
    ...{ beam: 'near-infrared', emission: 'pulsed', by: ['nothing'], families: ['aluminium'], layers: ['bare'] },
    ...{ powerW: 9.9, speedMmPerS: at(110, 110), intervalMm: 0.025 },
  },
  // 1000 mm/min at 2 W; chrome plate half of that.
  {
    ...{ beam: 'near-infrared', emission: 'pulsed', by: ['nothing'], families: [...METALS], layers: ['bare'] },
    ...{ powerW: 2, speedMmPerS: at(16.7, 33.3), intervalMm: 0.035 },
  },
  {
    ...{ beam: 'near-infrared', by: ['nothing'], families: [...METALS, 'aluminium'], layers: ['chrome plate'] },
    ...{ powerW: 2, speedMmPerS: at(8.3, 8.3), intervalMm: 0.035 },
  },
  {
    ...{ beam: 'near-infrared', by: ['nothing'], families: ['acrylic'], layers: ['bare'] },
    ...{ powerW: 2, speedMmPerS: at(5, 5), intervalMm: null },
  },
  {
    ...{ beam: 'near-infrared', emission: 'pulsed', by: ['metal film-forming'], families: ['bone'] },
    ...{ powerW: 56, speedMmPerS: at(1500, 1500), intervalMm: 0.042 },
  },
  // 300 mm/min at 10 W.
  {
    ...{ beam: 'blue', by: ['metal film-forming', 'metal powder-drying', 'metal thin-laying', 'home-made coat'] },
    ...{ families: ['stainless', 'steel'], powerW: 10, speedMmPerS: at(5, 5), intervalMm: null },
  },
  // 100 mm/min at 10 W, 200 at 20 W.
  {
    ...{ beam: 'blue', by: ['nothing'], families: ['stainless'], layers: ['bare'] },
    ...{ powerW: 10, speedMmPerS: at(1.67, 1.67), intervalMm: null },
  },
  // 3000 mm/min at 10 W; 2000 to 10 000 all usable.
  {
    ...{ beam: 'blue', by: ['nothing'], families: ['aluminium'], layers: ['anodised'] },
    ...{ powerW: 10, speedMmPerS: at(33, 100), intervalMm: null },
  },
  // 6000 mm/min at 80 % of 10 W.
  {
    ...{ beam: 'blue', by: ['nothing'], families: [...METALS, 'aluminium'], layers: ['painted', 'powder-coated'] },
    ...{ powerW: 8, speedMmPerS: at(100, 100), intervalMm: null },
  },
];

/** The part, the beam and what is laid on it, as far as a usual setting looks at them. */
export interface UsualCase {
  readonly beam: WavelengthClass;
  readonly emission: 'continuous' | 'pulsed';
  readonly by: MarkedBy;
  readonly family: SubstrateFamily;
  readonly layer: SurfaceLayer;
}

/** Usual settings that bear on a case; none where the trade says nothing of it. */
export function usualSettingsOf({ beam, emission, by, family, layer }: UsualCase): UsualSetting[] {
  return USUAL_SETTINGS.filter(
    (usual) =>
      usual.beam === beam &&
      (usual.emission ?? emission) === emission &&
      usual.by.includes(by) &&
      usual.families.includes(family) &&
      (usual.layers?.includes(layer) ?? true),
  );
}
