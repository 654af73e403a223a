import { CORE_READING, type PanelScale, type UnitChoice, type UnitReading } from '@unto/core';
import type { Workshop } from '@unto/contract';
import type { FittedEquipment } from './fitted-equipment.js';

/** The units a shop reads in; power in percent wherever no machine is meant. */
export function shopUnits(shop: Workshop): UnitChoice {
  return {
    ...CORE_READING.units,
    speed: shop.speedUnit,
    interval: shop.intervalUnit,
    length: shop.lengthUnit,
    film: shop.filmUnit,
    mass: shop.massUnit,
  };
}

/** What the numbers on a machine's panel are relative to: its rating, its top speed, its measured dial. */
export function panelScale({ machine, head }: Pick<FittedEquipment, 'machine' | 'head'>): PanelScale {
  const { topSpeedMmPerS, dialTable } = machine;
  return {
    ratedW: head.ratedW,
    topSpeedMmPerS,
    dialTable: dialTable.length >= 2 ? dialTable.map(({ dial, mmPerS }) => ({ x: dial, y: mmPerS })) : null,
  };
}

/** Settings as they are keyed in at this machine: power and speed on its panel's scale, the rest as the shop reads it. */
export function panelReading(units: UnitChoice, equipment: Pick<FittedEquipment, 'machine' | 'head'>): UnitReading {
  const { panelPower, panelSpeed } = equipment.machine;
  return { units: { ...units, power: panelPower, speed: panelSpeed }, scale: panelScale(equipment) };
}
