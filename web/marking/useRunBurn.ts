import { BURN_BROKEN_OFF, type ControllerAction, type SettleBurn } from '@unto/contract';
import { useQueryCache } from '@pinia/colada';
import { v4 as uuid } from 'uuid';
import { computed } from 'vue';
import { KEYS } from '../api/keys';
import { useBurn } from '../burns/useBurn';
import { useShop } from '../stores/shop';
import { useTicket } from '../stores/ticket';
import { useTouch } from '../stores/useTouch';

/** A counted run on the controller: its pieces are sent a load at a time, and counted as the controller tells of them. */
export function useRunBurn() {
  const ticket = useTicket();
  const shop = useShop();
  const cache = useQueryCache();
  const { touchedBy } = useTouch();
  const marking = computed(() => ticket.page?.marking ?? null);
  const { pressed, ...state } = useBurn(() => marking.value?.burn ?? null, {
    look: () => cache.invalidateQueries({ key: [...KEYS.ticket(ticket.ticket!.id)] }),
    ended: () => touchedBy('settleRunBurn', { params: { id: '' }, body: { as: 'whole', seen: null } }),
  });
  /** It is on the head, or somebody has to say what became of it: nothing else is counted for it meanwhile. */
  const open = computed(() => {
    const { burn, follows } = state;
    return burn.value && (follows.value || BURN_BROKEN_OFF.includes(burn.value.state)) ? burn.value : null;
  });
  /** Whether pieces can be sent at all: a controller, a head that takes G-code, and something laid out to send. */
  const sends = computed(
    () => shop.devices.controller && ticket.fitted?.machine.motion === 'gantry' && marking.value?.layoutId !== null,
  );
  const own = () => ({ id: state.burn.value!.id });
  const send = () => pressed('startRunBurn', { params: { id: marking.value!.id }, body: { id: uuid() } });
  const act = (action: ControllerAction) => pressed('actOnRunBurn', { params: own(), body: { action } });
  const settle = (as: SettleBurn['as'], seen: number | null = null) =>
    pressed('settleRunBurn', { params: own(), body: { as, seen } });
  return { ...state, open, sends, send, act, settle };
}
