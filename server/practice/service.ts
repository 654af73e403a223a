import { arealDose, intervalToMm, powerToPercent, speedToMmPerS } from '@unto/core';
import type { CreateStatedSetting, StatedSetting } from '@unto/contract';
import { createOnce, find, insert, list, type Context } from '../db/context.js';
import type { Rows } from '../db/models.js';
import { atField } from '../http/refusal.js';

/** Keeps a stated setting as entered, with what follows from it in core units. */
export async function createStatedSetting(context: Context, request: CreateStatedSetting): Promise<StatedSetting> {
  await createOnce(context, 'practice', request, async () => {
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

export async function listPractice(context: Context): Promise<StatedSetting[]> {
  return (
    await list(context, 'statedSettings', {
      order: [
        ['at', 'DESC'],
        ['id', 'ASC'],
      ],
    })
  ).map(view);
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
