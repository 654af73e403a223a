import { couponGcode, equivalentRadius, layoutCoupon, type CouponLayout, type GcodeOptions } from '@unto/core';
import type { BurnSetup, SprayedBlock } from '@unto/contract';
import { couponLimits, burnSetup, rowMotion, type FittedBench } from '@unto/domain';
import type { Context } from '../db/context.js';
import type { Rows } from '../db/models.js';
import { loadBench, storeItem } from '../stores/service.js';

/** A coupon as it is to be burnt: laid out, with its head and what lies under it. */
export interface CouponOnBench {
  readonly bench: FittedBench;
  readonly layout: CouponLayout;
  readonly setup: BurnSetup;
}

export async function couponOnBench(context: Context, coupon: Rows['coupons']): Promise<CouponOnBench> {
  const { bench } = await loadBench(context, coupon);
  const layout = layoutCoupon(coupon.design, couponLimits(bench));
  const { design, focusOffsetMm } = coupon;
  const blocks = await sprayedBlocks(context, coupon, layout);
  const lies = { key: design.code, blank: design.blank, blocks, batch: coupon.ticketId ?? '', focusMm: focusOffsetMm };
  return { bench, layout, setup: burnSetup(bench, lies) };
}

/** The coupon's program for its own head; a part of its cells where a run broke off. */
export function couponProgram(
  { bench, layout }: Pick<CouponOnBench, 'bench' | 'layout'>,
  laserOn: 'M3' | 'M4',
  only?: readonly number[],
): string {
  const options: GcodeOptions = {
    motion: rowMotion(bench.machine),
    fullScaleS: bench.machine.fullScaleS,
    laserOn,
    spotMm: 2 * equivalentRadius(bench.lens.spotXMm, bench.lens.spotYMm),
    ...(only ? { only } : {}),
  };
  return couponGcode(layout, options);
}

/** What was sprayed where, from left to right: blocks of their own compound or coats, and strips left uncoated. */
async function sprayedBlocks(context: Context, coupon: Rows['coupons'], layout: CouponLayout): Promise<SprayedBlock[]> {
  const ids = coupon.design.compoundIds.length ? coupon.design.compoundIds : [coupon.compoundId];
  const compounds = await Promise.all(ids.map((id) => (id ? storeItem(context, 'compound', id) : null)));
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
