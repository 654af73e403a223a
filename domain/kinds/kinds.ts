import type { InventoryBodyOf, InventoryKind } from '@unto/contract';
import { COMPOUND_KINDS } from './compound-kinds.js';
import { HEAD_KINDS, type HeadKind } from './head-kinds.js';
import { BLANK_KINDS, CONTAINER_KINDS, SUBSTRATE_KINDS } from './shelf-kinds.js';
import type { ShelfKind, Usual } from './usual.js';

/** Kinds of store items that ship with usual values. */
export type KindedItem = 'machine' | 'head' | 'lens' | 'compound' | 'container' | 'substrate' | 'blank';

/** All kinds of head, machine, lens and so on; a lens's key names the head it belongs to. */
export const SHELF_KINDS: { readonly [K in KindedItem]: readonly ShelfKind<K>[] } = {
  head: HEAD_KINDS,
  machine: HEAD_KINDS.map(({ key, name, about, machine }) => ({ key, name, about, body: machine })),
  lens: HEAD_KINDS.flatMap((head) =>
    head.lenses.map((lens) => ({ ...lens, key: lensKey(head, lens), name: `${lens.name} of ${head.name}` })),
  ),
  compound: COMPOUND_KINDS,
  container: CONTAINER_KINDS,
  substrate: SUBSTRATE_KINDS,
  blank: BLANK_KINDS,
};

export function lensKey(head: Pick<HeadKind, 'key'>, lens: Pick<ShelfKind<'lens'>, 'key'>): string {
  return `${head.key}/${lens.key}`;
}

/** Whether things of this kind can be made from a shipped kind. */
export function isKinded(kind: InventoryKind): kind is KindedItem {
  return kind in SHELF_KINDS;
}

/** What is usual for a kind; null for none, or one that is not shipped (any more). */
export function usualBody<K extends InventoryKind>(kind: K, ofKind: string): Usual<K> | null {
  if (!isKinded(kind)) return null;
  const kinds = SHELF_KINDS[kind] as readonly ShelfKind<K>[];
  return kinds.find(({ key }) => key === ofKind)?.body ?? null;
}

/** Values of a substrate that its material settles: the handbooks' own, not a guess at the part. */
const SETTLED: Partial<Record<InventoryKind, readonly string[]>> = {
  substrate: [
    ...['family', 'alloy', 'conductivity', 'diffusivity', 'thermalSource', 'density'],
    // Only open where somebody says so.
    ...['gaugeNumber', 'gaugeMetal', 'diameterMm', 'curvature'],
  ],
  container: ['openedOn', 'expiresOn'],
  blank: ['grade', 'lot', 'note'],
  compound: [
    ...['dataSheet', 'leadTimeDays', 'availability', 'help', 'trackRecord', 'makerClaim', 'potLifeHours'],
    ...['form', 'application'],
  ],
  head: [
    ...['wavelengthClass', 'emission', 'frequencyKHzMin', 'frequencyKHzMax', 'pulseNsMin', 'pulseNsMax'],
    'beamDiameterMm',
  ],
  machine: ['motion', 'dialTable'],
};

/** Fields that stand at what is usual once a kind is chosen and nothing was said. */
export function usualFields(kind: KindedItem, ofKind: string): string[] {
  const body = usualBody(kind, ofKind);
  const settled = SETTLED[kind] ?? [];
  return body ? Object.keys(body).filter((field) => !settled.includes(field)) : [];
}

/**
 * An item of a kind: what somebody said, and for the rest what is usual, named as such.
 * @throws Error for a kind that is not shipped
 */
export function bodyOfKind<K extends KindedItem>(
  kind: K,
  ofKind: string,
  said: Partial<InventoryBodyOf[K]> & { readonly name: string },
): InventoryBodyOf[K] {
  const body = usualBody(kind, ofKind);
  if (!body) throw new Error(`There is no ${kind} of the kind “${ofKind}”.`);
  const usual = usualFields(kind, ofKind).filter((field) => !(field in said));
  return { ...body, ...said, ofKind, usual } as unknown as InventoryBodyOf[K];
}
