import type { WavelengthClass } from '@unto/core';
import type { CouponsElsewhere, InventoryItem } from '@unto/contract';
import { heatedPart, substratesNear, type CouponWindowCell } from '@unto/domain';
import { find, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { equipmentOf, listInventory, namesOf } from '../inventory/service.js';
import { scrubbedCells, scrubbedCoupons, type FiredOn } from './window.js';

/** So many coupons say where to start; older ones say it again. */
const NEWEST = 12;

/**
 * What was scrubbed of a ticket's compound where the beam is of the same class and the part of the same family and layer, but the head,
 * the lens or the part is another; newest first. Across classes nothing is carried: another beam is taken up by other things.
 */
export async function couponsElsewhere(context: Context, ticketId: string): Promise<CouponsElsewhere[]> {
  const ticket = await find(context, 'tickets', ticketId);
  const heads = await listInventory(context, { kind: 'head', retired: 1 });
  const substrates = await listInventory(context, { kind: 'substrate', retired: 1 });
  const beam = heads.find(({ id }) => id === ticket.headId)!.body.wavelengthClass;
  const { compoundId } = ticket;
  const pairing = {
    compoundId,
    substrateIds: substratesNear(
      substrates.find(({ id }) => id === ticket.substrateId)!,
      substrates,
    ),
    headIds: heads.filter(({ body }) => body.wavelengthClass === beam).map(({ id }) => id),
  };
  const found = await scrubbedCoupons(context, pairing);
  const others = found.filter((coupon) => placeOf(coupon) !== placeOf(ticket)).slice(0, NEWEST);
  const { cells } = await scrubbedCells(context, others, compoundId);
  const names = await namesOf(
    context,
    others.flatMap(({ headId, lensId, substrateId }) => [headId, lensId, substrateId]),
  );
  const places = [...new Set(others.map(placeOf))];
  const carried = await Promise.all(
    places.map(async (place) => {
      const coupons = others.filter((coupon) => placeOf(coupon) === place);
      const { headId, lensId, substrateId, revisions } = coupons[0]!;
      const ids = new Set(coupons.map(({ id }) => id));
      return {
        ...{ head: names.get(headId)!, lens: names.get(lensId)!, substrate: names.get(substrateId)! },
        under: heatedPart(await equipmentOf(context, revisions)),
        cells: cells.filter(({ couponId }) => ids.has(couponId!)).map(triedCell),
        refused: null,
      };
    }),
  );
  return [...carried, ...(await refusedElsewhere(context, { pairing, heads, beam }))];
}

/** What was scrubbed of this compound on such parts under beams of another class: named, with why it says nothing here. */
async function refusedElsewhere(
  context: Context,
  { pairing, heads, beam }: { pairing: FiredOn; heads: readonly InventoryItem<'head'>[]; beam: WavelengthClass },
): Promise<CouponsElsewhere[]> {
  const others = heads.filter(({ body }) => body.wavelengthClass !== beam);
  const found = await scrubbedCoupons(context, { ...pairing, headIds: others.map(({ id }) => id) });
  const newest = [...new Map(found.map((coupon) => [coupon.headId, coupon])).values()];
  const names = await namesOf(
    context,
    newest.flatMap(({ headId, lensId, substrateId }) => [headId, lensId, substrateId]),
  );
  return Promise.all(
    newest.map(async ({ headId, lensId, substrateId, revisions, design }) => {
      const { body } = others.find(({ id }) => id === headId)!;
      const [head, lens, substrate] = [headId, lensId, substrateId].map((id) => names.get(id)!) as [
        string,
        string,
        string,
      ];
      return {
        ...{ head, lens, substrate, cells: [] },
        under: heatedPart(await equipmentOf(context, revisions)),
        refused: `${design.code} held or failed under ${head} on ${substrate}, whose beam (${body.wavelengthClass}, ${body.wavelengthNm} nm) coat and metal take up otherwise than ${beam}.`,
      };
    }),
  );
}

/** Where a coupon was fired, or a ticket will be. */
const placeOf = ({ headId, lensId, substrateId }: Pick<Rows['coupons'], 'headId' | 'lensId' | 'substrateId'>) =>
  `${headId} ${lensId} ${substrateId}`;

const triedCell = ({ powerW, speedMmPerS, intervalMm, outcome }: CouponWindowCell) => ({
  ...{ powerW, speedMmPerS, intervalMm, outcome },
});
