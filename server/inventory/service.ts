import { randomUUID } from 'node:crypto';
import { Op, type WhereOptions } from 'sequelize';
import {
  INVENTORY_BODIES,
  INVENTORY_LINKS,
  type CreateInventoryItem,
  type CreateInventoryItems,
  type Revisions,
  type RetireInventoryItem,
  type ReviseInventoryItem,
  type InventoryBodyOf,
  type InventoryItem,
  type InventoryKind,
  type InventoryRevision,
  type ListInventoryQuery,
} from '@unto/contract';
import type { FittedEquipment } from '@unto/domain';
import { createOnce, find, insert, isId, list, nothingUnder, requireVersion, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { pageOf } from '../db/page.js';
import { isKept } from '../files/service.js';
import { atPart, fault, ApiError } from '../errors/api-error.js';

/** A page of what the shop keeps, newest item first. */
export async function inventoryPage(
  context: Context,
  { kind, retired, ...asked }: ListInventoryQuery,
): Promise<{ records: InventoryItem[]; next: string | null }> {
  const { rows, next } = await pageOf(
    context,
    'inventoryItems',
    { key: 'id', where: chosen({ kind, retired }), more: WITH_REVISION },
    asked,
  );
  return { records: rows.map(itemView), next };
}

/** All items of a kind (or of every kind) with their newest revisions, by kind and name. */
export async function listInventory<K extends InventoryKind = InventoryKind>(
  context: Context,
  query: { kind?: K; retired?: number },
): Promise<InventoryItem<K>[]> {
  const items = await itemsWhere(context, chosen(query));
  return items.sort(
    (a, b) => a.kind.localeCompare(b.kind) || a.body.name.localeCompare(b.body.name),
  ) as InventoryItem<K>[];
}

function chosen({ kind, retired }: { kind?: string | undefined; retired?: number | undefined }) {
  return { ...(kind ? { kind } : {}), ...(retired === 1 ? {} : { retired: false }) };
}

/** An item by id and kind. @throws not-found, and invalid-input when it is of another kind */
export async function inventoryItem<K extends InventoryKind>(
  context: Context,
  kind: K,
  id: string,
): Promise<InventoryItem<K>> {
  const item = (await itemsById(context, [id])).get(id);
  if (!item) throw nothingUnder(id);
  return asKind(kind, item);
}

function asKind<K extends InventoryKind>(kind: K, item: InventoryItem): InventoryItem<K> {
  if (item.kind !== kind) throw fault(`${kind}Id`, `That is a ${item.kind}, not a ${kind}.`);
  return item as InventoryItem<K>;
}

/** Items by id, asked for together; one that is not kept is left out. */
export async function itemsById(context: Context, ids: readonly string[]): Promise<Map<string, InventoryItem>> {
  const known = [...new Set(ids)].filter(isId);
  if (!known.length) return new Map();
  const items = await itemsWhere(context, { id: { [Op.in]: known } });
  return new Map(items.map((item) => [item.id, item]));
}

/** All revisions of an item, newest first. */
export async function inventoryHistory(context: Context, id: string): Promise<InventoryRevision[]> {
  await find(context, 'inventoryItems', id);
  const rows = await list(context, 'inventoryRevisions', { where: { itemId: id }, order: [['number', 'DESC']] });
  return rows.map((row) => ({ ...row, at: row.at.toISOString() }));
}

export async function createInventoryItem(context: Context, request: CreateInventoryItem): Promise<InventoryItem> {
  const kind = request.kind as InventoryKind;
  await createOnce(context, 'inventory item', request, async () => {
    const body = await checkedBody(context, kind, request.body);
    const revisionId = randomUUID();
    await insert(context, 'inventoryItems', { id: request.id, kind, version: 1, retired: false, revisionId });
    await insert(context, 'inventoryRevisions', {
      id: revisionId,
      itemId: request.id,
      number: 1,
      body,
      at: context.now,
      byId: context.actor,
    });
  });
  return inventoryItem(context, kind, request.id);
}

/** Adds items in their order, in the one transaction of the request. @throws what a single one throws, at its own place in the list */
export async function createInventoryItems(
  context: Context,
  { items }: CreateInventoryItems,
): Promise<InventoryItem[]> {
  const made: InventoryItem[] = [];
  for (const [i, item] of items.entries())
    made.push(await atPart(`items[${i}].body`, createInventoryItem(context, item)));
  return made;
}

/** Makes a new revision; earlier ones stay for what was made on them. */
export async function reviseInventoryItem(
  context: Context,
  id: string,
  request: ReviseInventoryItem,
): Promise<InventoryItem> {
  const item = await find(context, 'inventoryItems', id, { lock: true });
  const current = await inventoryItem(context, item.kind, id);
  requireVersion(item.version, request.version, current);
  const body = await checkedBody(context, item.kind, request.body);
  const revisionId = randomUUID();
  await insert(context, 'inventoryRevisions', {
    id: revisionId,
    itemId: id,
    number: current.revision + 1,
    body,
    at: context.now,
    byId: context.actor,
  });
  await changeItem(context, id, { revisionId, version: item.version + 1 });
  return inventoryItem(context, item.kind, id);
}

export async function retireInventoryItem(
  context: Context,
  id: string,
  request: RetireInventoryItem,
): Promise<InventoryItem> {
  const item = await find(context, 'inventoryItems', id, { lock: true });
  requireVersion(item.version, request.version, await inventoryItem(context, item.kind, id));
  await changeItem(context, id, { retired: request.retired, version: item.version + 1 });
  return inventoryItem(context, item.kind, id);
}

async function changeItem(context: Context, id: string, change: Partial<Rows['inventoryItems']>): Promise<void> {
  await context.models.inventoryItems.update(change, { where: { id }, transaction: context.transaction ?? null });
}

async function checkedBody(
  context: Context,
  kind: InventoryKind,
  body: unknown,
): Promise<InventoryBodyOf[InventoryKind]> {
  const checked = (await INVENTORY_BODIES[kind].validate(body, {
    strict: true,
    abortEarly: false,
  })) as InventoryBodyOf[InventoryKind];
  const link = INVENTORY_LINKS[kind];
  if (link) {
    const target = (checked as unknown as Record<string, string | null>)[link.field]!;
    if (target === null) return checked;
    const linked = await context.models.inventoryItems.findByPk(target, { transaction: context.transaction ?? null });
    if (!linked || linked.get('kind') !== link.kind)
      throw fault(link.field, `Choose a ${link.kind} that is in the stores.`);
  }
  const sheet = kind === 'compound' ? (checked as InventoryBodyOf['compound']).dataSheet : null;
  if (sheet && !(await isKept(context, sheet.hash)))
    throw fault('dataSheet', `“${sheet.name}” is not kept here: bring the file again.`);
  return checked;
}

/** An item is read together with its newest revision. */
const WITH_REVISION = { include: ['revision'], nest: true };

async function itemsWhere(context: Context, where: WhereOptions): Promise<InventoryItem[]> {
  return (await list(context, 'inventoryItems', { where, ...WITH_REVISION })).map(itemView);
}

function itemView(row: Rows['inventoryItems']): InventoryItem {
  const { revision, ...item } = row as Rows['inventoryItems'] & { revision: Rows['inventoryRevisions'] };
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
}

/** Machine, head, lens, newest calibration and metal of a bench, with the revisions to pin. */
export async function loadEquipment(
  context: Context,
  chosen: { substrateId: string; headId: string; lensId: string; compoundId?: string | null },
): Promise<{ equipment: FittedEquipment; revisions: Revisions }> {
  const { substrateId, headId, lensId, compoundId = null } = chosen;
  const items = await itemsById(
    context,
    [substrateId, headId, lensId, compoundId].filter((id) => id !== null),
  );
  const item = async <K extends InventoryKind>(kind: K, id: string) => {
    const known = items.get(id);
    return known ? asKind(kind, known) : inventoryItem(context, kind, id);
  };
  const head = await item('head', headId);
  const lens = await item('lens', lensId);
  if (lens.body.headId !== head.id) throw fault('lensId', `${lens.body.name} does not belong to ${head.body.name}.`);
  const machine = await item('machine', head.body.machineId);
  const substrate = await item('substrate', substrateId);
  const compound = compoundId ? await item('compound', compoundId) : null;
  const calibration = newestCalibration(await listInventory(context, { kind: 'calibration' }), head.id);
  return {
    equipment: {
      machine: machine.body,
      head: head.body,
      lens: lens.body,
      substrate: substrate.body,
      calibration: calibration?.body ?? null,
    },
    revisions: {
      substrate: substrate.revisionId,
      compound: compound?.revisionId ?? null,
      head: head.revisionId,
      lens: lens.revisionId,
      machine: machine.revisionId,
      calibration: calibration?.revisionId ?? null,
    },
  };
}

/** Machine, head, lens, calibration and metal as they were in some revisions. */
export async function equipmentOf(context: Context, revisions: Revisions): Promise<FittedEquipment> {
  const { machine, head, lens, substrate, calibration } = revisions;
  const ids = [machine, head, lens, substrate, ...(calibration ? [calibration] : [])];
  const rows = await list(context, 'inventoryRevisions', { where: { id: { [Op.in]: ids } } });
  const bodies = new Map(rows.map(({ id, body }) => [id, body]));
  const body = <K extends InventoryKind>(id: string) => {
    if (!bodies.has(id)) throw nothingUnder(id);
    return bodies.get(id) as InventoryBodyOf[K];
  };
  return {
    machine: body<'machine'>(machine),
    head: body<'head'>(head),
    lens: body<'lens'>(lens),
    substrate: body<'substrate'>(substrate),
    calibration: calibration === null ? null : body<'calibration'>(calibration),
  };
}

function newestCalibration(items: readonly InventoryItem[], headId: string): InventoryItem<'calibration'> | undefined {
  return (items as InventoryItem<'calibration'>[])
    .filter(({ body }) => body.headId === headId)
    .sort((a, b) => b.body.meteredOn.localeCompare(a.body.meteredOn))[0];
}

/** Names of items by id, as they are called now. */
export async function namesOf(context: Context, ids: readonly (string | null)[]): Promise<Map<string, string>> {
  const items = await itemsById(
    context,
    ids.filter((id) => id !== null),
  );
  return new Map([...items].map(([id, { body }]) => [id, body.name]));
}

/** Refuses a retired item for new work. */
export async function requireInUse(
  context: Context,
  ids: readonly { path: string; id: string | null }[],
): Promise<void> {
  for (const { path, id } of ids) {
    if (!id) continue;
    const item = await context.models.inventoryItems.findByPk(id, { transaction: context.transaction ?? null });
    if (!item) throw fault(path, 'Choose one that is in the stores.');
    if (item.get('retired'))
      throw new ApiError('invalid-input', 'It was retired.', {
        faults: [{ path, message: 'It was retired: take it back in Stores, or choose another.' }],
      });
  }
}
