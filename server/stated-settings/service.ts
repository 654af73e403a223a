import { arealDose, intervalToMm, powerToPercent, speedToMmPerS } from '@unto/core';
import type { CreateStatedSetting, StatedSetting } from '@unto/contract';
import { createOnce, find, insert, type Context } from '../db/context.js';
import { pageOf, type Asked } from '../db/page.js';
import type { Rows } from '../db/models/index.js';
import { atField } from '../errors/api-error.js';

/** Keeps a stated setting as entered, with what follows from it in core units. */
export async function createStatedSetting(context: Context, request: CreateStatedSetting): Promise<StatedSetting> {
  await createOnce(context, 'stated setting', request, async () => {
    const { id, ...body } = request;
    await insert(context, 'statedSettings', {
      id,
      body,
      computed: coreFigures(request),
      at: context.now,
      byId: context.actor,
    });
  });
  return view(await find(context, 'statedSettings', request.id));
}

/** A page of stated settings, newest first. */
export async function listStatedSettings(
  context: Context,
  asked: Asked,
): Promise<{ records: StatedSetting[]; next: string | null }> {
  const { rows, next } = await pageOf(context, 'statedSettings', { key: 'at' }, asked);
  return { records: rows.map(view), next };
}

/** Percent, watts, mm/s, mm and dose as far as the statement reaches; null where something needed was not stated. */
function coreFigures(
  stated: CreateStatedSetting,
): Pick<StatedSetting, 'powerPercent' | 'powerW' | 'speedMmPerS' | 'intervalMm' | 'doseJPerMm2'> {
  const { power, speed, interval, ratedW, topSpeedMmPerS, passes } = stated;
  const powerPercent = power ? atField('power.value', () => powerToPercent(power.value, power.unit, ratedW)) : null;
  const powerW =
    power?.unit === 'W' ? power.value : powerPercent !== null && ratedW ? (powerPercent * ratedW) / 100 : null;
  const speedMmPerS = speed
    ? atField('speed.value', () => speedToMmPerS(speed.value, speed.unit, { topSpeedMmPerS }))
    : null;
  const intervalMm = interval ? intervalToMm(interval.value, interval.unit) : null;
  const doseJPerMm2 =
    powerW && speedMmPerS && intervalMm ? arealDose({ powerW, speedMmPerS, intervalMm, passes }) : null;
  return { powerPercent, powerW, speedMmPerS, intervalMm, doseJPerMm2 };
}

function view(row: Rows['statedSettings']): StatedSetting {
  return {
    id: row.id,
    ...row.body,
    ...row.computed,
    at: row.at.toISOString(),
    by: row.byId,
  } as unknown as StatedSetting;
}
