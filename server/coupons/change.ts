import type { Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';

export async function changeCoupon(context: Context, id: string, values: Partial<Rows['coupons']>): Promise<void> {
  await context.models.coupons.update(values, { where: { id }, transaction: context.transaction ?? null });
}
