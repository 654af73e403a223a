import { randomUUID } from 'node:crypto';
import { Op } from 'sequelize';
import {
  STORE_BODIES,
  STORE_LINKS,
  type CreateStoreItem,
  type Pins,
  type RetireStoreItem,
  type ReviseStoreItem,
  type StoreBodyOf,
  type StoreItem,
  type StoreKind,
} from '@unto/contract';
import type { FittedBench } from '@unto/domain';
import { createOnce, find, insert, list, requireVersion, type Context } from '../db/context.js';
import type { Rows } from '../db/models.js';
import { isKept } from '../files/service.js';
import { fault, Refusal } from '../http/refusal.js';

/** Items with their newest revisions, by kind and name. */
export async function listStores(context: Context, query: { kind?: string; retired?: number }): Promise<StoreItem[]> {
  const where = { ...(query.kind ? { kind: query.kind } : {}), ...(query.retired === 1 ? {} : { retired: false }) };
  const items = await list(context, 'storeItems', { where });
  const views = await withRevisions(context, items);
  return views.sort((a, b) => a.kind.localeCompare(b.kind) || a.body.name.localeCompare(b.body.name));
}

/** An item by id and kind. @throws not-found, and invalid-input when it is of another kind */
export async function storeItem<K extends StoreKind>(context: Context, kind: K, id: string): Promise<StoreItem<K>> {
  const item = await find(context, 'storeItems', id);
  if (item.kind !== kind) throw fault(`${kind}Id`, `That is a ${item.kind}, not a ${kind}.`);
  return (await withRevisions(context, [item]))[0] as StoreItem<K>;
}

/** All revisions of an item, newest first. */
export async function storeHistory(context: Context, id: string) {
  await find(context, 'storeItems', id);
  return list(context, 'storeRevisions', { where: { itemId: id }, order: [['number', 'DESC']] });
}

export async function createStoreItem(context: Context, request: CreateStoreItem): Promise<StoreItem> {
  const kind = request.kind as StoreKind;
  await createOnce(context, 'store', request, async () => {
    const body = await checkedBody(context, kind, request.body);
    const revisionId = randomUUID();
    await insert(context, 'storeItems', { id: request.id, kind, version: 1, retired: false, revisionId });
    await insert(context, 'storeRevisions', {
      id: revisionId,
      itemId: request.id,
      number: 1,
      body,
      at: context.now,
      byId: context.actor,
    });
  });
  return storeItem(context, kind, request.id);
}

/** Makes a new revision; earlier ones stay for what was made on them. */
export async function reviseStoreItem(context: Context, id: string, request: ReviseStoreItem): Promise<StoreItem> {
  const item = await find(context, 'storeItems', id, { lock: true });
  const current = await storeItem(context, item.kind, id);
  requireVersion(item.version, request.version, current);
  const body = await checkedBody(context, item.kind, request.body);
  const revisionId = randomUUID();
  await insert(context, 'storeRevisions', {
    id: revisionId,
    itemId: id,
    number: current.revision + 1,
    body,
    at: context.now,
    byId: context.actor,
  });
  await changeItem(context, id, { revisionId, version: item.version + 1 });
  return storeItem(context, item.kind, id);
}

export async function retireStoreItem(context: Context, id: string, request: RetireStoreItem): Promise<StoreItem> {
  const item = await find(context, 'storeItems', id, { lock: true });
  requireVersion(item.version, request.version, await storeItem(context, item.kind, id));
  await changeItem(context, id, { retired: request.retired, version: item.version + 1 });
  return storeItem(context, item.kind, id);
}

async function changeItem(context: Context, id: string, change: Partial<Rows['storeItems']>): Promise<void> {
  await context.models.storeItems.update(change, { where: { id }, transaction: context.transaction ?? null });
}

async function checkedBody(context: Context, kind: StoreKind, body: unknown): Promise<StoreBodyOf[StoreKind]> {
  const checked = (await STORE_BODIES[kind].validate(body, {
    strict: true,
    abortEarly: false,
  })) as StoreBodyOf[StoreKind];
  const link = STORE_LINKS[kind];
  if (link) {
    const target = (checked as unknown as Record<string, string | null>)[link.field]!;
    if (target === null) return checked;
    const linked = await context.models.storeItems.findByPk(target, { transaction: context.transaction ?? null });
    if (!linked || linked.get('kind') !== link.kind)
      throw fault(link.field, `Choose a ${link.kind} that is in the stores.`);
  }
  const sheet = kind === 'compound' ? (checked as StoreBodyOf['compound']).dataSheet : null;
  if (sheet && !(await isKept(context, sheet.hash)))
    throw fault('dataSheet', `“${sheet.name}” is not kept here: bring the file again.`);
  return checked;
}

async function withRevisions(context: Context, items: Rows['storeItems'][]): Promise<StoreItem[]> {
  const revisions = await list(context, 'storeRevisions', {
    where: { id: { [Op.in]: items.map((item) => item.revisionId) } },
  });
  const byId = new Map(revisions.map((revision) => [revision.id, revision]));
  return items.map((item) => {
    const revision = byId.get(item.revisionId)!;
    return {
      id: item.id,
      kind: item.kind,
      version: item.version,
      retired: item.retired,
      revisionId: revision.id,
      revision: revision.number,
      body: revision.body,
      changedAt: revision.at.toISOString(),
      changedBy: revision.byId,
    };
  });
}

/** Machine, head, lens, newest calibration and metal of a bench, with the revisions to pin. */
export async function loadBench(
  context: Context,
  chosen: { substrateId: string; headId: string; lensId: string; compoundId?: string | null },
): Promise<{ bench: FittedBench; pins: Pins }> {
  const head = await storeItem(context, 'head', chosen.headId);
  const lens = await storeItem(context, 'lens', chosen.lensId);
  if (lens.body.headId !== head.id) throw fault('lensId', `${lens.body.name} does not belong to ${head.body.name}.`);
  const machine = await storeItem(context, 'machine', head.body.machineId);
  const substrate = await storeItem(context, 'substrate', chosen.substrateId);
  const compound = chosen.compoundId ? await storeItem(context, 'compound', chosen.compoundId) : null;
  const calibration = newestCalibration(await listStores(context, { kind: 'calibration' }), head.id);
  return {
    bench: {
      machine: machine.body,
      head: head.body,
      lens: lens.body,
      substrate: substrate.body,
      calibration: calibration?.body ?? null,
    },
    pins: {
      substrate: substrate.revisionId,
      compound: compound?.revisionId ?? null,
      head: head.revisionId,
      lens: lens.revisionId,
      machine: machine.revisionId,
      calibration: calibration?.revisionId ?? null,
    },
  };
}

function newestCalibration(items: readonly StoreItem[], headId: string): StoreItem<'calibration'> | undefined {
  return (items as StoreItem<'calibration'>[])
    .filter(({ body }) => body.headId === headId)
    .sort((a, b) => b.body.meteredOn.localeCompare(a.body.meteredOn))[0];
}

/** Names of items by id, as they are called now. */
export async function namesOf(context: Context, ids: readonly (string | null)[]): Promise<Map<string, string>> {
  const wanted = [...new Set(ids.filter((id): id is string => id !== null))];
  const items = await list(context, 'storeItems', { where: { id: { [Op.in]: wanted } } });
  return new Map((await withRevisions(context, items)).map((item) => [item.id, item.body.name]));
}

/** Refuses a retired item for new work. */
export async function requireInUse(
  context: Context,
  ids: readonly { path: string; id: string | null }[],
): Promise<void> {
  for (const { path, id } of ids) {
    if (!id) continue;
    const item = await context.models.storeItems.findByPk(id, { transaction: context.transaction ?? null });
    if (!item) throw fault(path, 'Choose one that is in the stores.');
    if (item.get('retired'))
      throw new Refusal('invalid-input', 'It was retired.', {
        faults: [{ path, message: 'It was retired: take it back in Stores, or choose another.' }],
      });
  }
}
