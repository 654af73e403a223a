import type { ControllerAction, Coupon, SettleBurn, StartBurn } from '@unto/contract';
import { v4 as uuid } from 'uuid';
import type { Ref } from 'vue';
import { api } from '../api/client';
import { useBurn } from '../burns/useBurn';
import { useTouch } from '../stores/useTouch';

/** A coupon's run on the controller. */
export function useCouponBurn(coupon: Ref<Coupon | null>, changed: (coupon: Coupon) => void) {
  const { touchedBy } = useTouch();
  const params = () => ({ id: coupon.value!.id });
  const { pressed, ...state } = useBurn(() => coupon.value?.burn ?? null, {
    look: async () => coupon.value && changed(await api.call('coupon', { params: params() })),
    // What lists it is asked again once it has ended.
    ended: () => touchedBy('settleBurn', { params: params(), body: { as: 'whole', seen: null } }),
  });
  const own = () => ({ id: state.burn.value!.id });
  const send = (how: Pick<StartBurn, 'laserOn' | 'air' | 'extraction'>) =>
    pressed('startBurn', { params: params(), body: { id: uuid(), version: coupon.value!.version, ...how } }, changed);
  const act = (action: ControllerAction) => pressed('actOnBurn', { params: own(), body: { action } }, changed);
  const settle = (as: SettleBurn['as'], seen: number | null = null) =>
    pressed('settleBurn', { params: own(), body: { as, seen } }, changed);
  return { ...state, send, act, settle };
}
