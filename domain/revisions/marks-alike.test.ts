import { INVENTORY_BODIES, type InventoryKind } from '@unto/contract';
import { describe, expect, it } from 'vitest';
import { bodyOfKind, SHELF_KINDS, type KindedItem } from '../kinds/index.js';
import { marksAlike } from './marks-alike.js';

const ID = '0b6a0f0e-6c5c-4d33-9f29-8f3f1a6f0001';
const of = (kind: KindedItem) => {
  const links = { machineId: ID, headId: ID, compoundId: ID, substrateId: ID };
  const fields = Object.keys(INVENTORY_BODIES[kind].fields);
  const own = Object.fromEntries(Object.entries(links).filter(([field]) => fields.includes(field)));
  return bodyOfKind(kind, SHELF_KINDS[kind][0]!.key, { name: 'Mine', ...own } as never) as unknown as Record<
    string,
    unknown
  >;
};
const alike = (kind: KindedItem, change: object) =>
  marksAlike(kind as InventoryKind, of(kind) as never, { ...of(kind), ...change } as never);

describe('revisions of one thing', () => {
  it.each([
    ['machine', { laserMinorPerMinute: 99 }],
    ['head', { name: 'Another name', eyewear: 'the green pair' }],
    ['compound', { dryDensity: 3.9, massSolids: 0.2, usual: [], sizes: [{ label: 'can', netG: 1, priceMinor: 1 }] }],
    ['substrate', { density: 7.9 }],
  ] as const)('of a %s mark alike where only what is known of it grew', (kind, change) => {
    expect(alike(kind, change)).toBe(true);
  });

  it.each([
    ['machine', { topSpeedMmPerS: 1 }],
    ['machine', { fullScaleS: 255 }],
    ['head', { ratedW: 60 }],
    ['lens', { depthOfFocusMm: 0.1 }],
    ['lens', { spotXMm: 0.3 }],
    ['compound', { dryFilmMinUm: 1 }],
    ['compound', { coats: 3 }],
    ['compound', { dryS: 30 }],
    ['compound', { thinnerRatio: 2 }],
    ['substrate', { thicknessMm: 5 }],
    ['substrate', { layer: 'anodised' }],
    ['substrate', { conductivity: 1 }],
  ] as const)('of a %s do not where %o', (kind, change) => expect(alike(kind, change)).toBe(false));

  it('are judged by fields that there are', () => {
    for (const kind of ['machine', 'head', 'lens', 'compound', 'substrate'] as const)
      for (const field of Object.keys(of(kind)))
        if (alike(kind, { [field]: 'something else' }))
          expect(Object.keys(INVENTORY_BODIES[kind].fields)).toContain(field);
  });

  it('of what lies on no bench are never the same', () => {
    expect(marksAlike('profile', {} as never, {} as never)).toBe(false);
  });
});
