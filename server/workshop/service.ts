import type { ChangeOperator, CreateOperator, Operator, Workshop } from '@unto/contract';
import { dayOf } from '@unto/domain';
import { alone, createOnce, find, insert, list, requireVersion, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { fault } from '../errors/api-error.js';

/** Settings of a shop that has not said anything yet: usual practice. */
const FIRST_SETTINGS: Workshop = {
  version: 1,
  name: 'Marking room',
  currency: 'CR',
  labourMinorPerMinute: 40,
  bound: 0.8,
  tolerancePower: 0.05,
  toleranceFocusMm: 0.3,
  firstPieceStop: true,
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
  return rows.map(operatorView);
}

const operatorView = ({ createdAt: _at, ...row }: Rows['operators']): Operator => row;

export async function createOperator(context: Context, request: CreateOperator): Promise<Operator> {
  await createOnce(context, 'operator', request, async () => {
    await requireOwnName(context, request);
    await insert(context, 'operators', { ...request, createdAt: context.now });
  });
  return operatorView(await find(context, 'operators', request.id));
}

/**
 * Renames somebody, or says that they work here no more; what they did keeps them.
 * @throws version-conflict; invalid-input for a name that somebody else goes by, and for the last who works here
 */
export async function changeOperator(context: Context, id: string, request: ChangeOperator): Promise<Operator> {
  await alone(context, 'workshop');
  const stored = await find(context, 'operators', id);
  requireVersion(stored.version, request.version, operatorView(stored));
  const { version, ...change } = request;
  if (!change.retired) await requireOwnName(context, { id, name: change.name });
  const others = (await listOperators(context)).filter((one) => one.id !== id && !one.retired);
  if (change.retired && others.length === 0)
    throw fault('retired', 'Somebody must be at the bench: add who comes after, then retire this one.');
  await context.models.operators.update(
    { ...change, version: version + 1 },
    { where: { id }, transaction: context.transaction ?? null },
  );
  return operatorView(await find(context, 'operators', id));
}

/** Two who work here and go by one name could not be told apart in the record. */
async function requireOwnName(
  context: Context,
  { id, name }: { readonly id: string; readonly name: string },
): Promise<void> {
  const same = (other: string) => other.trim().toLowerCase() === name.trim().toLowerCase();
  const twin = (await listOperators(context)).find((one) => one.id !== id && !one.retired && same(one.name));
  if (twin) throw fault('name', `${twin.name} works here already: add something that tells them apart.`);
}
