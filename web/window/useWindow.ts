import {
  deliveredPower,
  type SettingJob,
  type WindowEquipment,
  type SettingCost,
  type Mix,
  type SettingPart,
  type WindowMap,
} from '@unto/core';
import type { Pairing, PairingWindow, Teaching, Workshop } from '@unto/contract';
import {
  familyJob,
  powerSource,
  settableParts,
  settingJob,
  teachingsFor,
  windowEquipment,
  weighedCells,
  windowFamilies,
  type CouponWindowCell,
  type FittedEquipment,
  type WindowFamily,
} from '@unto/domain';
import { useQuery } from '@pinia/colada';
import { computed, ref, shallowRef, watch } from 'vue';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import { windowQueryOf } from './address';
import type { MapOf } from './map-shown';
import { useShop } from '../stores/shop';
import { valueOf, type ComparedWindow, type DrawnWindow, type WindowGrid } from '../workers/computations';
import { useComputations } from '../workers/useComputations';

/** Seed of every fit shown; a recipe freezes it. */
export const FIT_SEED = 1977;
const POWER_STEPS = 44;
const SPEED_STEPS = 60;

/** What a window's map is drawn at one value of, where its cells vary it. */
export const MAP_PARTS = [
  'intervalMm',
  'passes',
  'hatches',
  'angleDeg',
  'focusOffsetMm',
  'frequencyKHz',
  'pulseNs',
  'coats',
] as const satisfies readonly (SettingPart | 'coats')[];
export type MapPart = (typeof MAP_PARTS)[number];
export type MapRest = Pick<CouponWindowCell, MapPart>;

/** Where a map is cut for a cell or setting. */
export const mapRestOf = (from: MapRest): MapRest =>
  Object.fromEntries(MAP_PARTS.map((part) => [part, from[part]])) as unknown as MapRest;

/** The job and bench that a window was fitted for. */
export interface AskedOn {
  readonly job: SettingJob;
  readonly equipment: WindowEquipment;
  readonly teachings: readonly Teaching[];
}

/** What bears on the window of a pairing, sorted into families, and the window fitted to one of them, in a worker. */
export function useWindow(pairing: () => Pairing) {
  const worker = useComputations();
  const shop = useShop();
  const { data, refresh } = useQuery({
    key: () => KEYS.window(pairing()),
    query: () => api.call('pairingWindow', { query: windowQueryOf(pairing()) }),
  });
  // Asked again, the same cells come as other objects: a fit under way is not to be thrown away for them.
  const kept = shallowRef<PairingWindow | null>(null);
  watch(data, (now) => now && JSON.stringify(now) !== JSON.stringify(kept.value) && (kept.value = now), {
    immediate: true,
  });
  /** Coupons that were given back their whole weight. */
  const atFull = shallowRef<ReadonlySet<string>>(new Set());
  const families = computed(() => {
    const weights = new Map(kept.value?.coupons.map(({ id, weight }) => [id, weight]));
    return windowFamilies(
      weighedCells((kept.value?.cells ?? []) as readonly CouponWindowCell[], weights, atFull.value),
    );
  });
  const picked = ref(0);
  watch(families, () => (picked.value = 0));
  const family = computed(() => families.value[picked.value] ?? null);
  const cells = computed(() => family.value?.cells ?? []);
  const coupons = computed(() => (kept.value?.coupons ?? []).filter(({ id }) => family.value?.couponIds.includes(id)));
  const runs = computed(() => (kept.value?.runs ?? []).filter(({ id }) => family.value?.runIds.includes(id)));
  const recipes = computed(() => kept.value?.recipes ?? []);
  const drawn = shallowRef<DrawnWindow | null>(null);
  /** The map, and what it was worked out over. */
  const map = shallowRef<WindowMap | null>(null);
  const grid = shallowRef<WindowGrid | null>(null);
  /** What the prices of the settings are made of; null where nothing has one. */
  const cost = shallowRef<SettingCost | null>(null);
  /** What the settings of the drawn window were looked for on. */
  const asked = shallowRef<AskedOn | null>(null);
  const fault = ref('');
  const busy = ref(false);

  async function fit(
    mark: { widthMm: number; heightMm: number; tone?: 'dark on light' | 'light on dark' | undefined },
    equipment: FittedEquipment,
    mix: Mix | null,
  ): Promise<void> {
    const of = family.value;
    if (!of) return;
    busy.value = true;
    try {
      const blank = shop.inUse('blank').find(({ body }) => body.substrateId === pairing().substrateId);
      const source = powerSource(equipment);
      cost.value = costOf(equipment, blank?.body.priceMinor);
      const task = {
        ...windowTask(of, equipment, { mark, shop: shop.workshop!, window: kept.value! }),
        seed: FIT_SEED,
        cost: cost.value,
        tone: mark.tone ?? 'dark on light',
        mix,
        reach: {
          leastW: deliveredPower(Math.max(1, equipment.head.firingThresholdPercent), source),
          mostW: deliveredPower(100, source),
          topSpeedMmPerS: equipment.machine.topSpeedMmPerS,
        },
      };
      const found = valueOf(await worker.core.window(task));
      if (of === family.value) {
        asked.value = { job: familyJob(of, task.job), equipment: task.equipment, teachings: task.teachings };
        drawn.value = found;
      }
      fault.value = '';
    } catch (error) {
      fault.value = (error as Error).message;
    } finally {
      busy.value = false;
    }
  }

  /** Cuts the fitted window for the map. */
  async function cut(rest: MapRest, equipment: FittedEquipment): Promise<void> {
    const now = drawn.value!;
    const source = powerSource(equipment);
    const over = {
      powersW: powerAxis(cells.value).map((percent) => Math.max(0.01, deliveredPower(percent, source))),
      speedsMmPerS: speedAxis(cells.value),
      rest,
    };
    const found = valueOf(await worker.core.map({ fit: now.fit, grid: over }));
    if (drawn.value?.fit !== now.fit) return;
    [grid.value, map.value] = [over, found];
  }
  watch(drawn, (now) => now ?? ([grid.value, map.value] = [null, null]));

  /** What the map shows, and the measure’s values over it; null while it shows the chance. */
  const mapOf = ref<MapOf>('chance');
  const field = shallowRef<Float64Array | null>(null);
  watch([mapOf, grid], async ([measure, over]) => {
    field.value = null;
    if (measure === 'chance' || !over) return;
    const values = valueOf(await worker.core.measureMap({ cells: cells.value, measure, map: over }));
    if (mapOf.value === measure && grid.value === over) field.value = values;
  });

  return {
    window: kept,
    families,
    picked,
    family,
    coupons,
    runs,
    recipes,
    cells,
    atFull,
    drawn,
    cost,
    fault,
    busy,
    refresh,
    fit,
    map,
    cut,
    mapOf,
    field,
    grid,
    asked,
  };
}

/** What a family is fitted and judged by, for a mark on some equipment. */
export function windowTask(
  family: WindowFamily,
  equipment: FittedEquipment,
  of: {
    readonly mark: { widthMm: number; heightMm: number };
    readonly shop: Workshop;
    readonly window: Pick<PairingWindow, 'coupons' | 'teachings'>;
  },
): ComparedWindow {
  const speeds = family.cells.map(({ speedMmPerS }) => speedMmPerS);
  const middle = Math.sqrt(Math.min(...speeds) * Math.max(...speeds));
  const own = of.window.coupons.filter(({ id }) => family.couponIds.includes(id));
  return {
    family,
    equipment: windowEquipment(equipment),
    job: settingJob(equipment, of.mark, of.shop, middle),
    // As the server will judge it: coupons of other revisions than would be marked on now prove nothing.
    settable: settableParts(equipment),
    otherRevisions: own.filter(({ sameRevisions }) => !sameRevisions).map(({ code }) => code),
    teachings: teachingsFor(family, of.window.teachings),
  };
}

/** What a piece costs besides the minutes under the head, as far as the stores tell: its blank. Null where nothing has a price. */
function costOf({ machine }: FittedEquipment, blankMinor = 0): SettingCost | null {
  const { laserMinorPerMinute } = machine;
  if (!blankMinor && !laserMinorPerMinute) return null;
  return {
    ...{ blankMinor, compoundMinor: 0, thinnerMinor: 0, laserMinorPerMinute },
    ...{ labourMinutes: 0, labourMinorPerMinute: 0 },
  };
}

/** Percentages for the map, a little beyond what was tested, at equal ratios. */
export function powerAxis(cells: readonly Pick<CouponWindowCell, 'powerPercent'>[]): number[] {
  const tested = cells.map(({ powerPercent }) => powerPercent);
  return ratios(Math.max(1, Math.min(...tested) * 0.75), Math.min(100, Math.max(...tested) * 1.15), POWER_STEPS);
}

export function speedAxis(cells: readonly Pick<CouponWindowCell, 'speedMmPerS'>[]): number[] {
  const tested = cells.map(({ speedMmPerS }) => speedMmPerS);
  return ratios(Math.min(...tested) * 0.8, Math.max(...tested) * 1.25, SPEED_STEPS);
}

function ratios(low: number, high: number, count: number): number[] {
  return Array.from({ length: count }, (_, i) => low * (high / low) ** (i / (count - 1)));
}

/** Watts as the percentage that delivers them; null beyond the head. Bisection on the head's own curve. */
export function percentFor(watts: number, equipment: FittedEquipment): number | null {
  const source = powerSource(equipment);
  if (watts > deliveredPower(100, source)) return null;
  let low = equipment.head.firingThresholdPercent;
  let high = 100;
  for (let i = 0; i < 40; i += 1) {
    const middle = (low + high) / 2;
    if (deliveredPower(middle, source) < watts) low = middle;
    else high = middle;
  }
  return high;
}
