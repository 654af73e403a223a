import type { InventoryItem } from '@unto/contract';
import type { FittedEquipment } from '@unto/domain';
import type { useShop } from './shop';

/** Machine, head, lens, newest calibration and metal for a choice of them; null while something is missing. */
export function fittedEquipment(
  shop: ReturnType<typeof useShop>,
  chosen: { substrateId: string; headId: string; lensId: string },
): FittedEquipment | null {
  const head = shop.item('head', chosen.headId);
  const lens = shop.item('lens', chosen.lensId);
  const substrate = shop.item('substrate', chosen.substrateId);
  const machine = shop.item('machine', head?.body.machineId);
  if (!head || !lens || !substrate || !machine) return null;
  const calibration = (shop.inUse('calibration') as InventoryItem<'calibration'>[])
    .filter(({ body }) => body.headId === head.id)
    .sort((a, b) => b.body.meteredOn.localeCompare(a.body.meteredOn))[0];
  return {
    machine: machine.body,
    head: head.body,
    lens: lens.body,
    substrate: substrate.body,
    calibration: calibration?.body ?? null,
  };
}
