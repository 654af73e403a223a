import type { CreateOperator, Operator, Workshop } from '@unto/contract';
import { dayOf } from '@unto/domain';
import { alone, createOnce, find, insert, list, requireVersion, type Context } from '../db/context.js';

/** Settings of a shop that has not said anything yet: usual practice. */
const FIRST_SETTINGS: Workshop = {
  version: 1,
  name: 'Marking room',
  currency: 'CR',
  labourMinorPerMinute: 40,
  bound: 0.8,
  tolerancePower: 0.05,
  toleranceFocusMm: 0.3,
  speedUnit: 'mm/s',
  intervalUnit: 'mm',
  lengthUnit: 'mm',
  filmUnit: 'µm',
  massUnit: 'g',
  timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
};

export async function workshop(context: Context): Promise<Workshop> {
  const [row] = await list(context, 'workshop');
  return row ? ({ ...FIRST_SETTINGS, ...row.body, version: row.version } as Workshop) : FIRST_SETTINGS;
}

/** The calendar day it is where the shop is, YYYY-MM-DD. */
export async function shopDay(context: Context): Promise<string> {
  return dayOf(context.now, (await workshop(context)).timeZone);
}

export async function changeWorkshop(context: Context, request: Workshop): Promise<Workshop> {
  // The row may not be there yet, so that it cannot be locked itself.
  await alone(context, 'workshop');
  const current = await workshop(context);
  requireVersion(current.version, request.version, current);
  const { version, ...body } = request;
  await context.models.workshop.upsert(
    { id: 1, version: version + 1, body },
    { transaction: context.transaction ?? null },
  );
  return workshop(context);
}

export async function listOperators(context: Context): Promise<Operator[]> {
  const rows = await list(context, 'operators', {
    order: [
      ['createdAt', 'ASC'],
      ['name', 'ASC'],
    ],
  });
  return rows.map(({ id, name, role }) => ({ id, name, role }));
}

export async function createOperator(context: Context, request: CreateOperator): Promise<Operator> {
  await createOnce(context, 'operator', request, () =>
    insert(context, 'operators', { ...request, createdAt: context.now }),
  );
  const { id, name, role } = await find(context, 'operators', request.id);
  return { id, name, role };
}
