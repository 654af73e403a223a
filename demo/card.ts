import { TYPICAL_PRINT, type CardPrint } from '@unto/core';
import type { Seeder } from './seeder.js';

/** What the workshop's own meter says of its card. */
export const DEMO_PRINT: CardPrint = { ...TYPICAL_PRINT, basis: 'measured' };

/** The reference card was measured before it was first used. */
export async function seedCard(seeder: Seeder): Promise<void> {
  const print = { ...DEMO_PRINT, steps: [...DEMO_PRINT.steps] };
  const body = { id: seeder.id('card-A5'), size: 'A5' as const, print, white: null, fileHash: null };
  await seeder.call('createCard', body, { daysAgo: 300, by: 'ines' });
}
