import type { SubstrateFamily, WavelengthClass } from '@unto/core';

/** Words that sheets have for materials, in several languages; the first that is found counts. */
const FAMILIES: readonly (readonly [SubstrateFamily, RegExp])[] = [
  ['stainless', /stainless|inox|edelstahl|\bss\b|\b(304|316|430)\b|rostfrei/],
  ['galvanised', /galvani[sz]|verzinkt|zinc[- ]plated/],
  ['beryllium copper', /beryllium/],
  ['aluminium', /alumin|\balu?\b|anodi[sz]|eloxal|\b(6061|6082|5052|1050)\b/],
  ['brass', /brass|messing|laiton|ottone|latón/],
  ['copper', /copper|kupfer|cuivre|rame\b|cobre/],
  ['steel', /steel|stahl|acier|acciaio|acero|\biron\b/],
  ['zinc', /\bzinc\b|\bzink\b|zamak/],
  ['vitreous enamel', /enamel|emaille?/],
  ['glazed ceramic', /ceramic|keramik|tile|fliese|mug|porcelain|stoneware|slate/],
  ['glass', /glass|\bglas\b|verre|vetro|vidrio/],
  ['acrylic', /acryl|pmma/],
  ['bone', /\bbone\b|knochen/],
  ['PVC', /\bpvc\b|vinyl/],
];
const BEAMS: readonly (readonly [WavelengthClass, RegExp])[] = [
  ['co2', /co ?2|10[.,]?6|glass tube/],
  ['near-infrared', /fib(re|er)|infra|\bir\b|1064|nd:?y|ytterb/],
  ['ultraviolet', /\buv\b|ultra|355/],
  ['blue', /diode|blue|blau|4[45]\d ?nm/],
];

const named = <T>(words: readonly (readonly [T, RegExp])[], text: string): T | null =>
  words.find(([, pattern]) => pattern.test(text.toLowerCase()))?.[0] ?? null;

/** The family that a word for a material means; null where it means none that is known. */
export const familyNamed = (text: string): SubstrateFamily | null => named(FAMILIES, text);
/** The beam that a word for a head means. */
export const beamNamed = (text: string): WavelengthClass | null => named(BEAMS, text);
