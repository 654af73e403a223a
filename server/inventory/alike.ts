import { Op } from 'sequelize';
import type { Revisions } from '@unto/contract';
import { marksAlike } from '@unto/domain';
import { isId, list, type Context } from '../db/context.js';

const PARTS = ['substrate', 'compound', 'head', 'lens', 'machine', 'calibration'] as const;

/** Names what was pinned by what stands on the bench now, where it is the same thing. */
export interface AsNow {
  revisions: (pinned: Revisions) => Revisions;
  /** The same of one revision. */
  revision: (id: string) => string;
}

/**
 * How revisions that were pinned before compare with those of now: one that marks as the present revision of its item does (renamed,
 * priced anew, better known) is named by that one, so that it counts as the same.
 * @param pinned ids of all that are to be compared; where none is another than now, nothing is asked
 */
export async function marksAsNow(context: Context, now: Revisions, pinned: readonly string[]): Promise<AsNow> {
  const present = new Map(PARTS.flatMap((part) => (now[part] === null ? [] : [[now[part], part] as const])));
  const others = [...new Set(pinned)].filter((id) => !present.has(id) && isId(id));
  const same = new Map<string, string>();
  if (others.length) {
    const ids = [...others, ...[...present.keys()].filter(isId)];
    const rows = await list(context, 'inventoryRevisions', { where: { id: { [Op.in]: ids } } });
    const newest = new Map(rows.filter(({ id }) => present.has(id)).map((row) => [row.itemId, row]));
    for (const { id, itemId, body } of rows) {
      const row = newest.get(itemId);
      if (row && row.id !== id && marksAlike(present.get(row.id)!, row.body as never, body as never))
        same.set(id, row.id);
    }
  }
  const revision = (id: string) => same.get(id) ?? id;
  return {
    revision,
    revisions: (before) =>
      ({
        ...before,
        ...Object.fromEntries(PARTS.map((part) => [part, before[part] === null ? null : revision(before[part])])),
      }) as Revisions,
  };
}

/** Ids of all that some records were made on. */
export const pinnedIds = (all: readonly Revisions[]): string[] =>
  all.flatMap((revisions) => PARTS.flatMap((part) => revisions[part] ?? []));
