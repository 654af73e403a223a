import { blanks } from './blanks.js';
import { COMPOUNDS } from './compounds.js';
import { containers } from './containers.js';
import type { DemoItem, Refer } from './demo-item.js';
import { MACHINES, heads, lenses } from './machines.js';
import { profiles } from './profiles.js';
import { SUBSTRATES } from './substrates.js';
export type { DemoItem } from './demo-item.js';

/** Metered points of the CO2 head, percent and watts; it fires from 7 %. */
const CO2_METERED = [
  [7, 1.2],
  [15, 6.1],
  [25, 12.4],
  [35, 18.7],
  [50, 27.6],
  [65, 35.9],
  [80, 43.6],
  [90, 47.9],
  [100, 50.6],
] as const;

/** All store items of the demo, in an order that satisfies their references. */
export function demoInventory(refer: Refer, day: (ago: number) => string): DemoItem[] {
  const calibration: DemoItem<'calibration'> = {
    key: 'co2-calibration',
    kind: 'calibration',
    body: {
      name: 'Long bench CO2, nine points',
      headId: refer('co2'),
      meteredOn: day(430),
      rows: CO2_METERED.map(([percent, watts]) => ({ percent, watts })),
    },
  };
  return [
    ...MACHINES,
    ...heads(refer),
    ...lenses(refer),
    calibration,
    ...COMPOUNDS,
    ...containers(refer, day),
    ...SUBSTRATES,
    ...blanks(refer),
    ...profiles(),
  ];
}
