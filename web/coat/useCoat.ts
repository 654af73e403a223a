import {
  APPLICATION_CARE,
  containersToReady,
  learnStroke,
  mixFor,
  piecesLeft,
  piecesReady,
  sparesFor,
  strokesFor,
  type ShelfContainer,
} from '@unto/core';
import type { Timer, InventoryItem } from '@unto/contract';
import { coatPlanFor, containerInHand, judgeCoat, learntTransfer, runningTimers } from '@unto/domain';
import { computed, ref } from 'vue';
import { useShop } from '../stores/shop';
import { useNow } from '../stores/now';
import { useTicket } from '../stores/ticket';
import { orFault } from '../ui/or-fault';

const SURE = 0.9;

/** The coat of the open ticket: what is still to be laid, what it takes, and what is known of the newest one. */
export function useCoat() {
  const ticket = useTicket();
  const shop = useShop();
  const time = useNow();
  const compound = computed(() => ticket.compound!);
  const body = computed(() => compound.value.body);
  /** Pieces that still want a coat: neither marked and good, nor coated and waiting. */
  const left = computed(() => {
    const { page, ticket: own } = ticket;
    if (!page || !own) return 0;
    const { progress } = page;
    return Math.max(0, piecesLeft({ pieces: own.pieces, ...progress }) - piecesReady(progress) - progress.storedPieces);
  });
  const spares = ref(usualSpares());
  const application = ref(body.value.application);
  const care = computed(() => APPLICATION_CARE[application.value]);
  const transfer = computed(() =>
    learntTransfer(ticket.page?.transferSamples ?? [], application.value, shop.operatorId ?? ''),
  );
  const stroke = computed(() => learnStroke(ticket.page?.strokeSamples ?? []));
  const containers = computed<InventoryItem<'container'>[]>(() =>
    shop.inUse('container').filter((container) => container.body.compoundId === compound.value.id),
  );
  /** The container that is taken first: its price is the one that is paid. */
  const inHand = computed(() =>
    containerInHand(containers.value, leftOf, new Date(time.now).toISOString().slice(0, 10)),
  );
  const plan = computed(() =>
    coatPlanFor(
      compound.value,
      ticket.ticket!,
      Math.max(1, left.value + (Number.isInteger(spares.value) ? spares.value : 0)),
      transfer.value,
      inHand.value,
    ),
  );
  const strokes = computed(() => strokesFor(plan.value.mass.value, body.value.coats, stroke.value));
  const mix = computed(() => (body.value.thinnerRatio > 0 ? mixFor(plan.value.mass.value, body.value) : null));
  const ready = computed(() =>
    orFault(() =>
      containersToReady(
        mix.value?.compoundG ?? plan.value.mass.value,
        containers.value.map(shelfContainer),
        body.value.sizes,
        new Date(time.now).toISOString().slice(0, 10),
      ),
    ),
  );
  const newest = computed(() => ticket.page?.weighings.at(-1) ?? null);
  const verdict = computed(() => judgeCoat(body.value, newest.value, ticket.page?.coatReadings ?? []));
  const timersOf = (kind: Timer['kind']) => (ticket.page ? runningTimers(ticket.page.timers, kind) : []);
  const drying = computed(() => timersOf('dry'));
  const shaking = computed(() => timersOf('shake')[0] ?? null);
  const shaken = computed(
    () => ticket.page?.timers.filter(({ kind, outcome }) => kind === 'shake' && outcome === 'passed').at(-1) ?? null,
  );
  const mixes = computed(() => timersOf('pot'));
  const stored = computed(() => ticket.page?.storedCoats.filter(({ endedAt }) => !endedAt) ?? []);

  function usualSpares(): number {
    const { page, ticket: own } = ticket;
    if (!page || !own) return 0;
    return orFault(() => sparesFor({ ...page.yieldBefore, pieces: left.value, confidence: SURE })).result ?? 0;
  }

  function leftOf(id: string): number | undefined {
    return ticket.page?.containersLeft.find(({ containerId }) => containerId === id)?.leftG;
  }

  function shelfContainer({ id, body: can }: InventoryItem<'container'>): ShelfContainer {
    return { id, name: can.name, leftG: leftOf(id) ?? can.netG, openedOn: can.openedOn, expiresOn: can.expiresOn };
  }

  return {
    compound,
    body,
    left,
    spares,
    application,
    care,
    transfer,
    stroke,
    strokes,
    plan,
    mix,
    ready,
    containers,
    newest,
    verdict,
    drying,
    shaking,
    shaken,
    mixes,
    stored,
  };
}

export type Coat = ReturnType<typeof useCoat>;
