import { TYPICAL_PRINT, type CardPrint } from '@unto/core';

/** What the workshop's own meter says of its card. */
export const DEMO_PRINT: CardPrint = { ...TYPICAL_PRINT, basis: 'measured' };
