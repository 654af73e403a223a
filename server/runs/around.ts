import { ValidationError } from 'yup';
import {
  INVENTORY_BODIES,
  INVENTORY_LINKS,
  ledgerAround,
  type InventoryBodyOf,
  type InventoryKind,
  type LedgerAround,
  type LedgerRecord,
} from '@unto/contract';
import { insert, isId, list, rowsOf, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { ApiError } from '../errors/api-error.js';
import { isKept } from '../files/service.js';

type Item = LedgerAround['items'][number];

/** Identifiers that the records of an export refer to, gathered as they pass. */
export class Referred {
  readonly #operators = new Set<string>();
  readonly #items = new Set<string>();
  readonly #tickets = new Set<string>();
  readonly #revisions = new Set<string>();

  note(record: LedgerRecord): void {
    for (const who of [record.by, record.cleaning?.by, record.judgement?.by]) if (who) this.#operators.add(who);
    this.#tickets.add(record.ticketId);
    for (const id of [record.substrateId, record.compoundId, record.headId]) if (id) this.#items.add(id);
    // A row of before may refer to nothing.
    for (const id of Object.values(record.revisions)) if (id && isId(id)) this.#revisions.add(id);
  }

  /** Everything they stand for, and what that in turn refers to. */
  async around(context: Context): Promise<LedgerAround> {
    const tickets = await rowsOf(context, 'tickets', this.#tickets);
    for (const { byId, substrateId, headId, lensId, compoundId } of tickets) {
      this.#operators.add(byId);
      for (const id of [substrateId, headId, lensId, compoundId]) if (id) this.#items.add(id);
    }
    for (const { itemId } of await rowsOf(context, 'inventoryRevisions', this.#revisions)) this.#items.add(itemId);
    const items = await this.#withLinked(context);
    return {
      operators: (await rowsOf(context, 'operators', this.#operators)).map(({ id, name, role }) => ({
        id,
        name,
        role,
      })),
      items,
      tickets: tickets.map(({ restartedAt: _at, restartedSequence: _place, byId, createdAt, changedAt, ...row }) => ({
        ...row,
        createdAt: createdAt.toISOString(),
        changedAt: changedAt.toISOString(),
        by: byId,
      })),
    };
  }

  async #withLinked(context: Context): Promise<Item[]> {
    for (;;) {
      const items = await itemsOf(context, this.#items);
      const linked = items.flatMap(({ kind, revisions }) => revisions.map(({ body }) => linkOf(kind, body)));
      const more = linked.filter((id): id is string => id !== null && !this.#items.has(id));
      if (!more.length) {
        items.forEach(({ revisions }) => revisions.forEach(({ by }) => this.#operators.add(by)));
        return items;
      }
      more.forEach((id) => this.#items.add(id));
    }
  }
}

function linkOf(kind: InventoryKind, body: InventoryBodyOf[InventoryKind]): string | null {
  const link = INVENTORY_LINKS[kind];
  return link ? (body as unknown as Record<string, string | null>)[link.field]! : null;
}

async function itemsOf(context: Context, ids: ReadonlySet<string>): Promise<Item[]> {
  const items = await rowsOf(context, 'inventoryItems', ids);
  const revisions = await rowsOf(context, 'inventoryRevisions', ids, { key: 'itemId' });
  const byItem = new Map<string, Rows['inventoryRevisions'][]>();
  for (const row of revisions) byItem.set(row.itemId, [...(byItem.get(row.itemId) ?? []), row]);
  return items.map(({ id, kind, retired }) => ({
    ...{ id, kind, retired },
    revisions: (byItem.get(id) ?? [])
      .map(({ id, number, body, at, byId }) => ({ id, number, body, at: at.toISOString(), by: byId }))
      .sort((a, b) => a.number - b.number),
  }));
}

/**
 * Brings what a ledger file refers to and this shop does not have: people, tickets, and things of the stores with all their revisions.
 * What is here stays as it is.
 * @throws invalid-input naming what is wrong in it
 */
export async function bringAround(context: Context, file: unknown): Promise<void> {
  const around = await checkedAround(file);
  const absent = async <T extends { readonly id: string }>(
    table: 'operators' | 'tickets' | 'inventoryItems',
    all: readonly T[],
  ) => {
    const here = new Set(
      (
        await rowsOf(
          context,
          table,
          all.map(({ id }) => id),
          { attributes: ['id'] },
        )
      ).map(({ id }) => id),
    );
    return all.filter(({ id }) => !here.has(id));
  };
  for (const operator of await absent('operators', around.operators))
    await insert(context, 'operators', { ...operator, createdAt: context.now });
  for (const item of await absent('inventoryItems', around.items)) await bringItem(context, item);
  await bringTickets(context, await absent('tickets', around.tickets));
}

async function checkedAround(file: unknown): Promise<LedgerAround> {
  try {
    const around = (await ledgerAround.validate(file, { strict: true })) as LedgerAround;
    for (const { kind, revisions } of around.items)
      for (const { body } of revisions) INVENTORY_BODIES[kind].validateSync(body, { strict: true });
    return around;
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    throw new ApiError(
      'invalid-input',
      `What the file brings along is not whole: ${error.message} Nothing was imported.`,
      {
        faults: [{ path: `around.${error.path ?? ''}`, message: error.message }],
      },
    );
  }
}

async function bringItem(context: Context, { id, kind, retired, revisions }: Item): Promise<void> {
  const newest = revisions.reduce((a, b) => (b.number > a.number ? b : a));
  await insert(context, 'inventoryItems', { id, kind, version: newest.number, retired, revisionId: newest.id });
  for (const { by, at, body, ...revision } of revisions)
    await insert(context, 'inventoryRevisions', {
      ...revision,
      itemId: id,
      body: await withoutLostSheet(context, body),
      at: new Date(at),
      byId: by,
    });
}

/** A data sheet that is not kept here is no sheet: its file does not come with a ledger. */
async function withoutLostSheet(
  context: Context,
  body: InventoryBodyOf[InventoryKind],
): Promise<InventoryBodyOf[InventoryKind]> {
  const sheet = 'dataSheet' in body ? body.dataSheet : null;
  return sheet && !(await isKept(context, sheet.hash)) ? ({ ...body, dataSheet: null } as typeof body) : body;
}

async function bringTickets(context: Context, tickets: LedgerAround['tickets']): Promise<void> {
  const taken = new Set((await list(context, 'tickets', { attributes: ['number'] })).map(({ number }) => number));
  for (const { by, number, createdAt, changedAt, ...ticket } of tickets)
    await insert(context, 'tickets', {
      ...ticket,
      ...(taken.has(number) ? {} : { number }),
      createdAt: new Date(createdAt),
      changedAt: new Date(changedAt),
      byId: by,
    } as Partial<Rows['tickets']>);
  // The next ticket opened here goes on after the highest of them.
  await context.sequelize.query(
    `SELECT setval(pg_get_serial_sequence('tickets', 'number'), greatest((SELECT max(number) FROM tickets), 1))`,
    { transaction: context.transaction ?? null },
  );
}
