import { usualRules, type OutcomeRules } from '@unto/core';

/** Colours that are none, as they are written of a compound. */
const COLOURLESS = /black|gr[ae]y|white|silver|clear|^$/i;

/** Rules for a compound's marks before anybody moves them. */
export function couponRules(
  tone: Parameters<typeof usualRules>[0],
  compound: { readonly colour: string } | null,
): OutcomeRules {
  return usualRules(tone, compound !== null && !COLOURLESS.test(compound.colour));
}
