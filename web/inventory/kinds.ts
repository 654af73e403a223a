import type { InventoryKind } from '@unto/contract';

/** What the kinds of store items are called on screen. */
export const KIND_WORDS: Record<InventoryKind, { one: string; many: string; about: string }> = {
  machine: { one: 'machine', many: 'Machines', about: 'bed, motion and the scales its panel shows' },
  head: { one: 'head', many: 'Heads', about: 'wavelength, power, eyewear' },
  lens: { one: 'lens', many: 'Lenses', about: 'spot and depth of focus' },
  calibration: { one: 'power calibration', many: 'Power calibrations', about: 'percent against metered watts' },
  compound: { one: 'compound', many: 'Compounds', about: 'band, drying, label, sizes and prices' },
  container: { one: 'container', many: 'Containers', about: 'lots, weighings, what is left' },
  substrate: { one: 'substrate', many: 'Substrates', about: 'material, layer, thickness, heat' },
  blank: { one: 'blank', many: 'Blanks', about: 'supplier, lot, price, measured size' },
  profile: { one: 'profile', many: 'Profiles', about: 'what counts, by occasion' },
};

/** Money is kept in minor units and typed in major ones. */
export function isMoney(key: string): boolean {
  return key.includes('Minor');
}

/** What is asked for first in the form of something new. */
export const KIND_QUESTIONS: Partial<Record<InventoryKind, string>> = {
  machine: 'On what kind of machine?',
  head: 'What kind of head?',
  lens: 'Which lens?',
  compound: 'What kind of compound?',
  container: 'What does it come in?',
  substrate: 'What material?',
  blank: 'What kind of blank?',
};
