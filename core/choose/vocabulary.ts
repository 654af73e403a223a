/** Wavelength classes; nothing proved in one carries over to another. */
export const WAVELENGTH_CLASSES = ['co2', 'near-infrared', 'blue', 'ultraviolet'] as const;
export type WavelengthClass = (typeof WAVELENGTH_CLASSES)[number];

export const WAVELENGTH_WORDS: Record<WavelengthClass, string> = {
  co2: 'CO2 (10.6 µm)',
  'near-infrared': 'near infrared (1064 nm)',
  blue: 'blue (450 nm)',
  ultraviolet: 'ultraviolet (355 nm)',
};

/** Kinds of compound, and marking without one. */
export const COMPOUND_FORMS = [
  'metal film-forming',
  'metal powder-drying',
  'metal thin-laying',
  'dry-film lubricant',
  'home-made coat',
  'glass and ceramic',
  'universal',
  'coloured metal',
  'coloured glass and ceramic',
] as const;
export type CompoundForm = (typeof COMPOUND_FORMS)[number];

export const SUBSTRATE_FAMILIES = [
  'stainless',
  'steel',
  'brass',
  'copper',
  'aluminium',
  'galvanised',
  'beryllium copper',
  'zinc',
  'glass',
  'glazed ceramic',
  'vitreous enamel',
  'acrylic',
  'bone',
  'PVC',
] as const;
export type SubstrateFamily = (typeof SUBSTRATE_FAMILIES)[number];

/** What lies on the substrate's own material. */
export const SURFACE_LAYERS = [
  'bare',
  'chrome plate',
  'nickel plate',
  'cadmium plate',
  'anodised',
  'painted',
  'powder-coated',
  'lacquered',
  'film',
] as const;
export type SurfaceLayer = (typeof SURFACE_LAYERS)[number];

/** How a dry coat may be treated before firing. */
export const COAT_HANDLINGS = ['can be touched', 'rubs off', 'loose powder'] as const;
export type CoatHandling = (typeof COAT_HANDLINGS)[number];

const METALS: readonly SubstrateFamily[] = [
  'stainless',
  'steel',
  'brass',
  'copper',
  'aluminium',
  'galvanised',
  'beryllium copper',
  'zinc',
];
const VITREOUS: readonly SubstrateFamily[] = ['glass', 'glazed ceramic', 'vitreous enamel'];

/** Whether a family conducts as metals do, whatever lies on it. */
export function isMetal(family: SubstrateFamily): boolean {
  return METALS.includes(family);
}

/** Glass, glaze and enamel: all crack when shocked and take glass compounds. */
export function isVitreous(family: SubstrateFamily): boolean {
  return VITREOUS.includes(family);
}
