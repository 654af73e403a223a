import { layoutCoupon, samePart } from '@unto/core';
import type { Recipe } from '@unto/contract';
import { couponLimits, type CouponWindowCell } from '@unto/domain';
import { scrubbedCells } from '../coupons/window.js';
import { list, NEWEST_FIRST, rowsOf, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { readFile } from '../files/service.js';
import { equipmentOf } from '../inventory/service.js';

/** How a recipe's marks look: a cell near its setting, cut from the straight picture of its coupon. */
export interface Swatch {
  /** SVG 1.1 with the picture in it. */
  readonly svg: string;
  readonly coupon: string;
  readonly cell: Pick<CouponWindowCell, 'powerPercent' | 'speedMmPerS'>;
}

/** Further off in ln power and ln speed a cell does not show how the setting marks. */
const NEAR = 0.35;

/** The scrubbed cell that lies nearest a recipe’s setting on its coupons and was pictured; null where none is near. */
export async function swatchOf(context: Context, recipe: Recipe): Promise<Swatch | null> {
  const coupons = await rowsOf(
    context,
    'coupons',
    recipe.weights.map(({ couponId }) => couponId),
  );
  const { cells } = await scrubbedCells(context, coupons, recipe.compoundId);
  const near = cells
    .map((cell) => ({ cell, off: offBy(cell, recipe) }))
    .filter(({ off }) => off <= NEAR)
    .sort((a, b) => a.off - b.off);
  for (const { cell } of near) {
    const coupon = coupons.find(({ id }) => id === cell.couponId)!;
    const svg = await cutOut(context, coupon, cell.cell);
    if (svg) return { svg, coupon: coupon.design.code, cell };
  }
  return null;
}

function offBy(cell: CouponWindowCell, recipe: Recipe): number {
  const same =
    cell.passes === recipe.passes &&
    recipe.intervalMm !== null &&
    samePart('intervalMm', cell.intervalMm, recipe.intervalMm);
  if (!same || recipe.powerW === null || recipe.speedMmPerS === null || cell.outcome !== 'holds') return Infinity;
  return Math.hypot(Math.log(cell.powerW / recipe.powerW), Math.log(cell.speedMmPerS / recipe.speedMmPerS));
}

/** A cell with the ground about it out of its coupon’s newest straight picture after the scrub. */
async function cutOut(context: Context, coupon: Rows['coupons'], index: number): Promise<string | null> {
  const where = { couponId: coupon.id, stage: 'scrubbed' };
  const [picture] = await list(context, 'couponPictures', { where, order: NEWEST_FIRST, limit: 1 });
  const level = picture?.entries.level;
  if (!level) return null;
  const { design } = coupon;
  const { cells } = layoutCoupon(design, couponLimits(await equipmentOf(context, coupon.revisions)));
  const { xMm, yMm } = cells[index]!;
  const { mediaType, content } = await readFile(context, level.fileHash);
  const { widthMm, heightMm } = design.blank;
  const room = Math.max(0.5, design.gapMm / 2);
  const view = {
    x: xMm - room,
    y: heightMm - yMm - design.cell.heightMm - room,
    width: design.cell.widthMm + 2 * room,
    height: design.cell.heightMm + 2 * room,
  };
  const href = `data:${mediaType};base64,${content.toString('base64')}`;
  const box = `width="${view.width}" height="${view.height}"`;
  return `<svg xmlns="http://www.w3.org/2000/svg" ${box} viewBox="0 0 ${view.width} ${view.height}"><clipPath id="cell"><rect ${box}/></clipPath><g clip-path="url(#cell)"><image x="${-view.x}" y="${-view.y}" width="${widthMm}" height="${heightMm}" preserveAspectRatio="none" href="${href}"/></g></svg>`;
}
