import type { FiringNotes } from '@unto/core';
import { cellWatts } from '@unto/domain';
import type { Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { itemsById, listInventory, loadEquipment } from '../inventory/service.js';

/**
 * Freezes what is in force as a coupon is fired: the revisions of everything that bears on a mark, every compound's own, the watts of
 * each cell by the calibration of that moment, and what was noted of the machine.
 */
export async function freezeFiring(
  context: Context,
  coupon: Rows['coupons'],
  notes: FiringNotes,
): Promise<Pick<Rows['coupons'], 'revisions' | 'firing'>> {
  const { equipment, revisions } = await loadEquipment(context, coupon);
  const ids = [...coupon.design.compoundIds, ...(coupon.compoundId ? [coupon.compoundId] : [])];
  const compounds = [...(await itemsById(context, ids)).values()].map(({ id, revisionId }) => ({
    id,
    revision: revisionId,
  }));
  const { air, extraction, powerMode } = notes;
  const blanks = (await listInventory(context, { kind: 'blank' })).filter(
    ({ body }) => body.substrateId === coupon.substrateId,
  );
  // The only blank of a substrate on the shelf is the one that was taken.
  const blankId = blanks.length === 1 ? blanks[0]!.id : null;
  const cellW = cellWatts(coupon.design, equipment);
  return { revisions, firing: { air, extraction, powerMode, compounds, cellW, blankId } };
}

/** What was in force as it was fired: a switch as the controller told it, where it can tell; not known where it was seen both ways. */
export function firedAs(
  firing: Rows['coupons']['firing'],
  seen: Pick<Rows['burns'], 'air' | 'extraction'>,
): Rows['coupons']['firing'] {
  const switched = (name: 'air' | 'extraction') =>
    seen[name] === 'changed' ? null : (seen[name] ?? firing?.[name] ?? null);
  return firing && { ...firing, air: switched('air'), extraction: switched('extraction') };
}
