import { isMetal, isVitreous } from '@unto/core';
import type { Pairing, Teaching } from '@unto/contract';
import { heatedPart, pairingOf, samePairing, teachingsOf } from '@unto/domain';
import type { Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { equipmentOf, listInventory, namesOf } from '../inventory/service.js';
import { scrubbedCells, scrubbedCoupons } from './window.js';

/** Newest coupons elsewhere that are looked at, and families of cells that teach. */
const NEWEST = 40;
const MOST = 8;

/**
 * What the shop knows of a pairing's compound elsewhere: on other metals (glass and its kin for one of these) of the same layer, under
 * heads of the same wavelength class; most cells first. Another beam is taken up by other things and teaches nothing.
 */
export async function shopTeachings(context: Context, pairing: Pairing): Promise<Teaching[]> {
  const heads = await listInventory(context, { kind: 'head', retired: 1 });
  const substrates = await listInventory(context, { kind: 'substrate', retired: 1 });
  const beam = heads.find(({ id }) => id === pairing.headId)?.body.wavelengthClass;
  const part = substrates.find(({ id }) => id === pairing.substrateId)?.body;
  if (!beam || !part) return [];
  const alike = substrates.filter(
    ({ body }) =>
      body.layer === part.layer &&
      isMetal(body.family) === isMetal(part.family) &&
      isVitreous(body.family) === isVitreous(part.family),
  );
  const found = await scrubbedCoupons(context, {
    compoundId: pairing.compoundId,
    substrateIds: alike.map(({ id }) => id),
    headIds: heads.filter(({ body }) => body.wavelengthClass === beam).map(({ id }) => id),
  });
  const others = found.filter((coupon) => !samePairing(placeOf(coupon, pairing), pairing)).slice(0, NEWEST);
  const names = await namesOf(
    context,
    others.flatMap(({ headId, lensId, substrateId }) => [headId, lensId, substrateId]),
  );
  const teachings: Teaching[] = [];
  for (const coupons of grouped(others, pairing)) {
    const { cells } = await scrubbedCells(context, coupons, pairing.compoundId);
    const { substrateId, headId, lensId, revisions } = coupons[0]!;
    const name = `${names.get(substrateId)!}, ${names.get(headId)!}, ${names.get(lensId)!}`;
    teachings.push(...teachingsOf(name, heatedPart(await equipmentOf(context, revisions)), cells));
  }
  return teachings.sort((a, b) => b.cells.length - a.cells.length).slice(0, MOST);
}

/** What a coupon's cells of the compound are of. */
const placeOf = (coupon: Rows['coupons'], { compoundId }: Pairing): Pairing => pairingOf({ ...coupon, compoundId });

/** Coupons of one place together. */
function grouped(coupons: readonly Rows['coupons'][], pairing: Pairing): Rows['coupons'][][] {
  const groups: Rows['coupons'][][] = [];
  for (const coupon of coupons) {
    const home = groups.find(([first]) => samePairing(placeOf(first!, pairing), placeOf(coupon, pairing)));
    if (home) home.push(coupon);
    else groups.push([coupon]);
  }
  return groups;
}
