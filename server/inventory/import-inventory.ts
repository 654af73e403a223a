import { ValidationError } from 'yup';
import {
  INVENTORY_BODIES,
  INVENTORY_KINDS,
  INVENTORY_LINKS,
  type ImportInventoryQuery,
  type InventoryFile,
  type InventoryItem,
  type InventoryKind,
  type InventoryReport,
} from '@unto/contract';
import { shopUnits } from '@unto/domain';
import { workshop } from '../workshop/service.js';
import { alone, stableJson, type Context } from '../db/context.js';
import { fault, ApiError } from '../errors/api-error.js';
import { createInventoryItem, listInventory, retireInventoryItem, reviseInventoryItem } from './service.js';
import { inventoryCsv, inventoryJson, type FileItem } from '../formats/inventory-files.js';

/** Items of a kind, or of all kinds, retired ones too. */
async function everything(context: Context, kind?: InventoryKind): Promise<InventoryItem[]> {
  return listInventory(context, { retired: 1, ...(kind ? { kind } : {}) });
}

export async function exportInventoryJson(
  context: Context,
  query: { kind?: InventoryKind | undefined },
): Promise<InventoryFile> {
  return inventoryJson(await everything(context, query.kind));
}

export async function exportInventoryCsv(
  context: Context,
  query: { kind?: InventoryKind | undefined },
): Promise<string> {
  if (!query.kind) throw fault('kind', 'A CSV holds one kind: say which.');
  const all = await everything(context);
  const names = new Map(all.map((item) => [item.id, item.body.name]));
  return inventoryCsv(
    query.kind,
    all.filter(({ kind }) => kind === query.kind),
    (id) => names.get(id) ?? '',
    shopUnits(await workshop(context)),
  );
}

/**
 * Brings store items back. An item that is here unchanged is left, one with other entries gets a new revision, a new one is added.
 * With any problem nothing at all is written.
 */
export async function importInventory(
  context: Context,
  { format, kind }: ImportInventoryQuery,
  bytes: Uint8Array,
): Promise<InventoryReport> {
  const read = await context.pool.run('readInventory', { format, kind, bytes });
  await alone(context, 'import');
  const here = new Map((await everything(context)).map((item) => [item.id, item]));
  const inFile = new Map(read.map((item) => [item.id, item]));
  const names = namesOf([...here.values()].map(asNamed), read.filter(({ id }) => !here.has(id)).map(asNamed));
  const items = read.map((item) => withLinks(item, names));
  const count = countOf(items.map(({ id }) => id));
  const problems = items.flatMap((item) =>
    [
      ...item.problems,
      ...identityFaults(item, count, here),
      ...linkFaults(item, here, inFile),
      ...bodyFaults(item),
    ].map((message) => ({ line: item.line, message: `Line ${item.line}: ${message}` })),
  );
  if (problems.length)
    throw new ApiError('invalid-input', `${problems.length} things cannot be taken; nothing was imported.`, {
      faults: problems,
    });
  const report = { created: 0, revised: 0, unchanged: 0, problems: [] };
  for (const item of inOrder(items)) report[await write(context, item, here.get(item.id))] += 1;
  return report;
}

interface Named {
  readonly id: string;
  readonly key: string;
}
const nameKey = (kind: string, name: string) => `${kind} ${name}`;
const asNamed = ({ id, kind, body }: Pick<FileItem, 'id' | 'kind'> & { readonly body: object }): Named => ({
  id,
  key: nameKey(kind, String((body as { name?: unknown }).name)),
});

/** Identifiers by kind and name. */
function namesOf(...all: readonly (readonly Named[])[]): ReadonlyMap<string, readonly string[]> {
  const names = new Map<string, string[]>();
  for (const { id, key } of all.flat()) names.set(key, [...(names.get(key) ?? []), id]);
  return names;
}

function countOf(ids: readonly string[]): ReadonlyMap<string, number> {
  const count = new Map<string, number>();
  for (const id of ids) count.set(id, (count.get(id) ?? 0) + 1);
  return count;
}

/** A link given by name becomes the one item in use of that name. */
function withLinks(item: FileItem, names: ReadonlyMap<string, readonly string[]>): FileItem {
  const link = INVENTORY_LINKS[item.kind];
  const name = link && item.linkNames[link.field];
  if (!link || !name) return item;
  const called = names.get(nameKey(link.kind, name)) ?? [];
  if (called.length === 1) return { ...item, body: { ...item.body, [link.field]: called[0]! } };
  const message = called.length
    ? `several ${link.kind}s are called “${name}”: give its id.`
    : `no ${link.kind} is called “${name}”.`;
  return { ...item, problems: [...item.problems, message] };
}

function identityFaults(
  item: FileItem,
  count: ReadonlyMap<string, number>,
  here: ReadonlyMap<string, InventoryItem>,
): string[] {
  if (!(INVENTORY_KINDS as readonly string[]).includes(item.kind)) return [`“${item.kind}” is no kind of store item.`];
  if (!/^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(item.id)) return [`“${item.id}” is not an identifier.`];
  const known = here.get(item.id);
  if (known && known.kind !== item.kind) return [`${item.id} is a ${known.kind} here, not a ${item.kind}.`];
  return count.get(item.id)! > 1 ? [`${item.id} stands in the file twice.`] : [];
}

function linkFaults(
  item: FileItem,
  here: ReadonlyMap<string, InventoryItem>,
  inFile: ReadonlyMap<string, FileItem>,
): string[] {
  const link = INVENTORY_LINKS[item.kind];
  const target = link && (item.body[link.field] as string | null | undefined);
  if (!link || !target) return [];
  const inTheFile = inFile.get(target);
  const known = here.get(target);
  const found = inTheFile ?? known;
  if (!found || found.kind !== link.kind) return [`its ${link.kind} ${target} is not kept here and not in the file.`];
  const unchanged = here.get(item.id) && stableJson(here.get(item.id)!.body) === stableJson(item.body);
  const retired = inTheFile ? inTheFile.retired : known!.retired;
  return retired && !item.retired && !unchanged
    ? [`its ${link.kind} “${String(found.body['name' as never])}” is retired: take it back first, or name another.`]
    : [];
}

function bodyFaults(item: FileItem): string[] {
  if (item.problems.length || !(item.kind in INVENTORY_BODIES)) return [];
  try {
    INVENTORY_BODIES[item.kind].validateSync(item.body, { strict: true, abortEarly: false });
    return [];
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    return error.errors;
  }
}

/** What is linked to comes before what links to it: the order of the kinds. */
function inOrder(items: readonly FileItem[]): FileItem[] {
  return [...items].sort((a, b) => linkDepth(a.kind) - linkDepth(b.kind));
}

function linkDepth(kind: InventoryKind): number {
  const link = INVENTORY_LINKS[kind];
  return link ? 1 + linkDepth(link.kind) : 0;
}

async function write(
  context: Context,
  item: FileItem,
  known: InventoryItem | undefined,
): Promise<'created' | 'revised' | 'unchanged'> {
  const body = item.body as never;
  let now = known;
  let what: 'created' | 'revised' | 'unchanged' = 'unchanged';
  if (!known) {
    now = await createInventoryItem(context, { id: item.id, kind: item.kind, body });
    what = 'created';
  } else if (stableJson(known.body) !== stableJson(item.body)) {
    now = await reviseInventoryItem(context, item.id, { version: known.version, body });
    what = 'revised';
  }
  if (now!.retired !== item.retired) {
    await retireInventoryItem(context, item.id, { version: now!.version, retired: item.retired });
    if (what === 'unchanged') what = 'revised';
  }
  return what;
}
