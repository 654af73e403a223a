import type { StoreItem } from '@unto/contract';
import type { FittedBench } from '@unto/domain';
import type { useBench } from './bench';

/** Machine, head, lens, newest calibration and metal for a choice of them; null while something is missing. */
export function fittedBench(
  bench: ReturnType<typeof useBench>,
  chosen: { substrateId: string; headId: string; lensId: string },
): FittedBench | null {
  const head = bench.item('head', chosen.headId);
  const lens = bench.item('lens', chosen.lensId);
  const substrate = bench.item('substrate', chosen.substrateId);
  const machine = bench.item('machine', head?.body.machineId);
  if (!head || !lens || !substrate || !machine) return null;
  const calibration = (bench.inUse('calibration') as StoreItem<'calibration'>[])
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
