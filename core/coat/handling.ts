import type { CoatHandling } from '../choose/vocabulary.js';

/** How a dry coat is treated until it is fired. Common practice, no source; the data sheet goes before. */
export interface CoatRules {
  /** While spraying and carrying. */
  readonly carry: readonly string[];
  /** While it lies on the shelf. */
  readonly store: string;
}

const RULES: Record<CoatHandling, CoatRules> = {
  'can be touched': {
    carry: ['Touch it by the edges once all gloss is gone.', 'Air assist may stay on.'],
    store: 'Keep it dry; it may be stacked with paper between.',
  },
  'rubs off': {
    carry: ['Lift by bare places only: a finger takes the coat with it.', 'Carry level, nothing on top.'],
    store: 'Keep it dry, side by side, never stacked.',
  },
  'loose powder': {
    carry: [
      'Gloves and mask on from the first stroke to the last rinse.',
      'Carry level and slowly; do not touch, tap or blow.',
      'Air assist off, extraction gentle: both carry the powder away.',
      'Drift looks like this: marks paler from piece to piece, or along the edge nearest the air.',
    ],
    store: 'Keep it dry, level, under a cover that does not touch it; never stacked.',
  },
};

/** Rules for a coat that dries like this. */
export function coatRules(handling: CoatHandling): CoatRules {
  return RULES[handling];
}
