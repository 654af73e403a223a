import { isMetal, isVitreous, type SubstrateFamily } from '@unto/core';
import type { InventoryItem } from '@unto/contract';

/** Substrates whose marks say something about another's: the same family and layer, or glass and its kin among themselves. */
export function substratesNear(
  substrate: InventoryItem<'substrate'>,
  all: readonly InventoryItem<'substrate'>[],
): string[] {
  const kin = (family: SubstrateFamily) => (isVitreous(family) ? 'vitreous' : family);
  const { family, layer } = substrate.body;
  return all
    .filter(
      ({ body }) =>
        body.layer === layer && kin(body.family) === kin(family) && isMetal(body.family) === isMetal(family),
    )
    .map(({ id }) => id);
}
