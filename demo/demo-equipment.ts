import type { InventoryItem } from '@unto/contract';
import type { FittedEquipment } from '@unto/domain';
import type { DemoJob } from './job.js';
import { demoInventory, type DemoItem } from './inventory/index.js';

/** What names a record of the demo. */
export interface Named {
  id(key: string): string;
  day(daysAgo: number): string;
}

/** Machine, head, lens and metal of a job. */
export function demoEquipment(seeder: Named, job: DemoJob): FittedEquipment {
  const items = demoInventory(
    (key) => seeder.id(key),
    (ago) => seeder.day(ago),
  );
  const find = <K extends DemoItem['kind']>(kind: K, key: string) =>
    items.find((item) => item.kind === kind && item.key === key)!.body as InventoryItem<K>['body'];
  const head = find('head', job.head);
  const machineKey = items.find((item) => seeder.id(item.key) === head.machineId)!.key;
  return {
    head,
    machine: find('machine', machineKey),
    lens: find('lens', job.lens),
    substrate: find('substrate', job.substrate),
    calibration: job.head === 'co2' ? find('calibration', 'co2-calibration') : null,
  };
}

/** A compound of the demo; null for none. */
export function demoCompound(seeder: Named, key: string | null): InventoryItem<'compound'>['body'] | null {
  const items = demoInventory(
    (other) => seeder.id(other),
    (ago) => seeder.day(ago),
  );
  const found = items.find((item): item is DemoItem<'compound'> => item.kind === 'compound' && item.key === key);
  return found?.body ?? null;
}
