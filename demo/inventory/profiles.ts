import { CRITERIA, type Weights } from '@unto/core';
import type { DemoItem } from './demo-item.js';

/** What counts, by occasion: 0 to 10 each. */
const PROFILES: readonly (readonly [key: string, name: string, about: string, weights: Partial<Weights>])[] = [
  [
    'profile-everyday',
    'everyday',
    'what usually matters here',
    { contrast: 7, rate: 5, evenness: 5, cleaning: 5, handling: 6, durability: 6, cost: 5 },
  ],
  [
    'profile-rush',
    'rush production',
    'many pieces, wanted soon',
    { contrast: 5, rate: 9, evenness: 4, cleaning: 6, handling: 6, durability: 4, cost: 6, availability: 2 },
  ],
  [
    'profile-hobby',
    'hobby evening',
    'few pieces, no hurry',
    { contrast: 6, rate: 1, evenness: 5, cleaning: 5, handling: 3, durability: 3, cost: 7, help: 2 },
  ],
  [
    'profile-heirloom',
    'heirloom',
    'one piece that must last',
    { contrast: 8, rate: 0, evenness: 8, cleaning: 1, handling: 2, durability: 10, cost: 0, trackRecord: 5 },
  ],
];

export function profiles(): DemoItem<'profile'>[] {
  const none = Object.fromEntries(CRITERIA.map((criterion) => [criterion, 0])) as Weights;
  return PROFILES.map(([key, name, about, weights]) => ({
    key,
    kind: 'profile',
    body: { name, about, ...none, ...weights },
  }));
}
