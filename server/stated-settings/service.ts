import { PLAIN_SETTING, type MarkSetting } from '@unto/core';
import type { CreateStatedSetting, CreateStatedSettings, StatedSetting } from '@unto/contract';
import { createOnce, find, insert, type Context } from '../db/context.js';
import { pageOf, type Asked } from '../db/page.js';
import type { Rows } from '../db/models/index.js';
import { doseOf, settingInCore } from '@unto/domain';

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

/** Keeps the settings of an old sheet, in the one transaction of the request. */
export async function createStatedSettings(
  context: Context,
  { settings }: CreateStatedSettings,
): Promise<StatedSetting[]> {
  const kept: StatedSetting[] = [];
  for (const setting of settings) kept.push(await createStatedSetting(context, setting));
  return kept;
}

/** A page of stated settings, newest first. */
export async function listStatedSettings(
  context: Context,
  asked: Asked,
): Promise<{ records: StatedSetting[]; next: string | null }> {
  const { rows, next } = await pageOf(context, 'statedSettings', { key: 'at' }, asked);
  return { records: rows.map(view), next };
}

/** The setting in core units and its dose as far as the statement reaches; null where something needed was not stated. */
function coreFigures(stated: CreateStatedSetting): MarkSetting & Pick<StatedSetting, 'doseJPerMm2'> {
  const { ratedW, topSpeedMmPerS } = stated;
  const watts = (percent: number) => (ratedW ? (percent * ratedW) / 100 : null);
  const setting = settingInCore(stated, { ratedW, topSpeedMmPerS }, watts);
  return { ...setting, doseJPerMm2: doseOf(setting) };
}

/** A statement as kept; one of before a setting had all its parts is plain in the others, names no compound, and no run. */
function view(row: Rows['statedSettings']): StatedSetting {
  return {
    id: row.id,
    ...{ ...PLAIN_SETTING, compound: '', past: null },
    ...row.body,
    ...row.computed,
    at: row.at.toISOString(),
    by: row.byId,
  } as unknown as StatedSetting;
}
