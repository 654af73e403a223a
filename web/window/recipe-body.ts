import type { CreateRecipe, Pairing, Ticket } from '@unto/contract';
import { settingIn, type WindowFamily } from '@unto/domain';
import { v4 as uuid } from 'uuid';
import type { OfferedSetting } from '../workers/computations';
import { FIT_SEED } from './useWindow';

/** A setting of a family as a recipe of its pairing; for a ticket, its own. */
export function recipeBody(of: {
  readonly pairing: Pairing;
  readonly ticket: Pick<Ticket, 'id'> | null;
  readonly mark: { readonly widthMm: number; readonly heightMm: number };
  readonly family: WindowFamily;
  readonly choice: OfferedSetting;
  readonly kind: CreateRecipe['kind'];
  readonly atFull?: ReadonlySet<string>;
}): CreateRecipe {
  const { powerW: _powerW, ...setting } = settingIn(of.family, of.choice);
  const { widthMm: markWidthMm, heightMm: markHeightMm } = of.mark;
  return {
    id: uuid(),
    ticketId: of.ticket?.id ?? null,
    ...(of.ticket ? {} : { pairing: { ...of.pairing, markWidthMm, markHeightMm } }),
    kind: of.kind,
    couponIds: [...of.family.couponIds],
    atFullIds: [...(of.atFull ?? [])],
    ...setting,
    seed: FIT_SEED,
  };
}
