import { shelfOrder } from '@unto/core';
import type { ContainerBody, InventoryItem } from '@unto/contract';

/**
 * The container of a compound that is taken next; null where none has anything left. Its price is the one that is paid.
 * @param leftG contents by id; as bought where nobody weighed it @param today ISO date
 */
export function containerInHand(
  containers: readonly InventoryItem<'container'>[],
  leftG: (id: string) => number | undefined,
  today: string,
): ContainerBody | null {
  const shelf = containers.map(({ id, body }) => ({
    ...{ id, name: body.name, leftG: leftG(id) ?? body.netG },
    ...{ openedOn: body.openedOn, expiresOn: body.expiresOn },
  }));
  const first = shelfOrder(shelf, today)[0]?.id;
  return containers.find(({ id }) => id === first)?.body ?? null;
}
