import type { InventoryBodyOf, InventoryItem, InventoryKind, Revisions } from '@unto/contract';
import type { FittedEquipment } from '@unto/domain';
import { api } from '../api/client';
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

/** The same as it was on the revisions of a record: what was revised since is asked for. @throws Unreachable, or in words where one is gone */
export async function firedEquipment(
  shop: ReturnType<typeof useShop>,
  { revisions }: { readonly revisions: Revisions },
): Promise<FittedEquipment> {
  const body = async <K extends InventoryKind>(kind: K, revision: string): Promise<InventoryBodyOf[K]> => {
    const items = shop.items.filter((item) => item.kind === kind) as InventoryItem<K>[];
    const now = items.find(({ revisionId }) => revisionId === revision);
    if (now) return now.body;
    for (const { id } of items) {
      const history = await api.call('inventoryHistory', { params: { id } });
      const then = history.find((one) => one.id === revision);
      if (then) return then.body as InventoryBodyOf[K];
    }
    throw new Error(`The ${kind} that it was fired on is not kept here.`);
  };
  const { machine, head, lens, substrate, calibration } = revisions;
  return {
    machine: await body('machine', machine),
    head: await body('head', head),
    lens: await body('lens', lens),
    substrate: await body('substrate', substrate),
    calibration: calibration ? await body('calibration', calibration) : null,
  };
}
