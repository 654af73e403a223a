import type { StoreItem } from '@unto/contract';
import type { FittedBench } from '@unto/domain';
import type { DemoJob } from './job.js';
import { demoStores, type DemoItem } from './stores.js';

/** What names a record of the demo. */
export interface Named {
  id(key: string): string;
  day(daysAgo: number): string;
}

/** Machine, head, lens and metal of a job. */
export function demoBench(scribe: Named, job: DemoJob): FittedBench {
  const items = demoStores(
    (key) => scribe.id(key),
    (ago) => scribe.day(ago),
  );
  const find = <K extends DemoItem['kind']>(kind: K, key: string) =>
    items.find((item) => item.kind === kind && item.key === key)!.body as StoreItem<K>['body'];
  const head = find('head', job.head);
  const machineKey = items.find((item) => scribe.id(item.key) === head.machineId)!.key;
  return {
    head,
    machine: find('machine', machineKey),
    lens: find('lens', job.lens),
    substrate: find('substrate', job.substrate),
    calibration: job.head === 'co2' ? find('calibration', 'co2-calibration') : null,
  };
}

/** A compound of the demo; null for none. */
export function demoCompound(scribe: Named, key: string | null): StoreItem<'compound'>['body'] | null {
  const items = demoStores(
    (other) => scribe.id(other),
    (ago) => scribe.day(ago),
  );
  const found = items.find((item): item is DemoItem<'compound'> => item.kind === 'compound' && item.key === key);
  return found?.body ?? null;
}
