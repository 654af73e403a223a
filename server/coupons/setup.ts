import { couponGcode, layoutCoupon, spotWidth, type CouponLayout, type GcodeOptions } from '@unto/core';
import type { BurnSetup, SprayedBlock } from '@unto/contract';
import { couponLimits, burnSetup, rowMotion, type FittedEquipment } from '@unto/domain';
import type { Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { equipmentOf, inventoryItem, loadEquipment } from '../inventory/service.js';

/** A coupon as it is to be burnt: laid out, with its head and what lies under it. */
export interface CouponOnEquipment {
  readonly equipment: FittedEquipment;
  readonly layout: CouponLayout;
  readonly setup: BurnSetup;
}

/** A coupon on its equipment: as it stands before it is fired, as it stood then afterwards. */
export async function couponOnEquipment(context: Context, coupon: Rows['coupons']): Promise<CouponOnEquipment> {
  const equipment = coupon.firing
    ? await equipmentOf(context, coupon.revisions)
    : (await loadEquipment(context, coupon)).equipment;
  const layout = layoutCoupon(coupon.design, couponLimits(equipment));
  const { design, focusOffsetMm } = coupon;
  const blocks = await sprayedBlocks(context, coupon, layout);
  const lies = { key: design.code, blank: design.blank, blocks, batch: coupon.ticketId ?? '', focusMm: focusOffsetMm };
  return { equipment, layout, setup: burnSetup(equipment, lies) };
}

/** The coupon's program for its own head; a part of its cells where a run broke off. */
export function couponProgram(
  { equipment, layout }: Pick<CouponOnEquipment, 'equipment' | 'layout'>,
  laserOn: 'M3' | 'M4',
  only?: readonly number[],
): string {
  const options: GcodeOptions = {
    motion: rowMotion(equipment.machine),
    fullScaleS: equipment.machine.fullScaleS,
    laserOn,
    spotMm: spotWidth(equipment.lens),
    ...(only ? { only } : {}),
  };
  return couponGcode(layout, options);
}

/** What was sprayed where, from left to right: blocks of their own compound or coats, and strips left uncoated. */
async function sprayedBlocks(context: Context, coupon: Rows['coupons'], layout: CouponLayout): Promise<SprayedBlock[]> {
  const ids = coupon.design.compoundIds.length ? coupon.design.compoundIds : [coupon.compoundId];
  const compounds = await Promise.all(ids.map((id) => (id ? inventoryItem(context, 'compound', id) : null)));
  const bodyOf = (number: number) => (compounds[number - 1] ?? compounds[0])?.body;
  const { widthMm } = coupon.design.cell;
  const columns = [...new Set(layout.cells.map(({ xMm }) => xMm))].sort((a, b) => a - b);
  return columns.map((xMm, i) => {
    const cell = layout.cells.find((one) => one.xMm === xMm)!;
    const [before, after] = [columns[i - 1], columns[i + 1]];
    const sprayed = cell.role === 'bare' ? undefined : bodyOf(cell.compound);
    return {
      fromMm: before === undefined ? 0 : (before + widthMm + xMm) / 2,
      toMm: after === undefined ? coupon.design.blank.widthMm + 1 : (xMm + widthMm + after) / 2,
      compound: sprayed?.name ?? '',
      coats: cell.coats,
      powder: sprayed?.handling === 'loose powder',
    };
  });
}
