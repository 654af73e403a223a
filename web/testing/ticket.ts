import { flushPromises } from '@vue/test-utils';
import type { DeviceList, InventoryItem } from '@unto/contract';
import { defineComponent, type Component } from 'vue';
import { useTicket } from '../stores/ticket';
import { fakeServer, mountInShop } from './shop';

export const NOTHING_DONE = {
  coatedPieces: 0,
  unclockedPieces: 0,
  offBandPieces: 0,
  storedPieces: 0,
  storedUntil: null,
  dryingUntil: null,
  dryingPieces: null,
  coupon: 'none',
  recipeNumber: null,
  recipeSuspended: false,
  recipeOffered: null,
  markedPieces: 0,
  rejectedPieces: 0,
  runs: 0,
  runsCleaned: 0,
  runsJudged: 0,
  runsFaulty: 0,
};

/** A ticket page on which nothing was kept yet; a test names what it looks at. */
function ticketPage(ticket: object, change: object) {
  return {
    ticket,
    stations: [],
    checks: [],
    timers: [],
    weighings: [],
    coatReadings: [],
    coatPictures: [],
    storedCoats: [],
    strokeSamples: [],
    containersLeft: [],
    coupons: [],
    testSteps: [],
    progress: { ...NOTHING_DONE },
    recipes: [],
    offeredRecipe: null,
    runs: [],
    marking: null,
    transferSamples: [],
    placeReadings: [],
    fitting: null,
    pointer: null,
    cardZero: null,
    sheet: null,
    artworks: [],
    layout: null,
    durability: [],
    verdicts: [],
    reworks: [],
    questions: [],
    huntedDepth: null,
    yieldBefore: { good: 0, made: 0, of: 'this shop' },
    ...change,
  };
}

/** Mounts a component that only shows on a ticket that is loaded, on a server that knows this ticket. */
export async function mountOnTicket(
  component: Component,
  options: {
    ticket: { readonly id: string };
    page?: object | undefined;
    props?: object;
    items?: readonly InventoryItem[];
    devices?: Partial<DeviceList>;
    answers?: Record<string, unknown>;
  },
) {
  const { ticket, page = {}, props = {}, items = [], devices = {}, answers = {} } = options;
  const server = fakeServer({ [`/api/tickets/${ticket.id}`]: ticketPage(ticket, page), ...answers });
  const Host = defineComponent({
    components: { Inner: component },
    setup: () => ({ props }),
    data: () => ({ ready: false }),
    async mounted() {
      await useTicket().open(ticket.id);
      this.ready = true;
    },
    template: '<Inner v-if="ready" v-bind="props" />',
  });
  const mounted = await mountInShop(Host, { items, devices });
  await flushPromises();
  return { ...mounted, server };
}
