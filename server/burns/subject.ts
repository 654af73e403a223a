import type { SwitchState } from '@unto/core';
import type { HeadScene } from '@unto/contract';
import type { Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';

type Burn = Rows['burns'];

/**
 * What a burn is of. Its parts are those that its program names: cells of a coupon from 0, or pieces of a ticket, its first being 0.
 * Whatever is done here is done in the transaction that changes the burn.
 */
export interface BurnSubject {
  scene(context: Context, burn: Burn): Promise<HeadScene>;
  /** Parts in the order they are burnt. */
  order(context: Context, burn: Burn): Promise<number[]>;
  /** The program of so many parts; null for all of them. */
  gcode(context: Context, burn: Burn, left: readonly number[] | null): Promise<string>;
  /** Refuses while it may not be sent again. */
  requireReady(context: Context, burn: Burn): Promise<void>;
  /** More of it is known than before. */
  progressed(context: Context, burn: Burn, before: Burn): Promise<void>;
  /** It is over, with what stands in it. @throws wrong-stage where that cannot be taken */
  taken(context: Context, burn: Burn): Promise<void>;
  /** Nothing of it was fired. */
  unfired(context: Context, burn: Burn): Promise<void>;
}

/** By what may be burnt. */
export interface BurnSubjects {
  readonly coupon: BurnSubject;
  readonly run: BurnSubject;
}

/** Which of the two a burn is of: exactly one of both is there. */
export type BurnOf = { readonly couponId: string } | { readonly markingId: string };

export const subjectOf = (subjects: BurnSubjects, { couponId }: Burn): BurnSubject =>
  couponId ? subjects.coupon : subjects.run;

/** How the switches beside a head stand, as they were said; null for not said. */
export function switchesOf(
  said: { readonly air?: Said; readonly extraction?: Said } | null,
): Pick<HeadScene, 'air' | 'extraction'> {
  const isOn = (one: Said) => (one ? one === 'on' : null);
  return { air: isOn(said?.air), extraction: isOn(said?.extraction) };
}

type Said = SwitchState | null | undefined;
