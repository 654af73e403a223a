import { DEMO_PRINT } from './card-print.js';
import type { Seeder } from './seeder.js';

/** The reference card was measured before it was first used. */
export async function seedCard(seeder: Seeder): Promise<void> {
  const print = { ...DEMO_PRINT, steps: [...DEMO_PRINT.steps] };
  const body = { id: seeder.id('card-A5'), size: 'A5' as const, print, white: null, fileHash: null };
  await seeder.call('createCard', body, { daysAgo: 300, by: 'ines' });
}
