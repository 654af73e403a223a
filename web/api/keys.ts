import type { Pairing, RouteName } from '@unto/contract';

/** Under what a view's data is kept: a query names one, a write names those it changes. */
export const KEYS = {
  operators: () => ['operators'],
  workshop: () => ['workshop'],
  inventory: () => ['inventory'],
  item: (id: string) => ['item', id],
  devices: () => ['devices'],
  cards: () => ['cards'],
  today: () => ['today'],
  timers: () => ['timers'],
  tickets: () => ['tickets'],
  ticket: (id: string) => ['ticket', id],
  motion: (machineId: string) => ['motion', machineId],
  lasting: (...of: string[]) => ['lasting', ...of],
  cleaningAdvice: (ticketId: string) => ['cleaning-advice', ticketId],
  artwork: (id: string) => ['artwork', id],
  pieceDrawing: (run: string, piece: number) => ['artwork', 'mark', run, String(piece)],
  choice: (ticketId: string) => ['choice', ticketId],
  window: ({ substrateId, compoundId, headId, lensId }: Pairing) => [
    ...['window', substrateId, compoundId ?? '', headId, lensId],
  ],
  elsewhere: (ticketId: string) => ['window', 'elsewhere', ticketId],
  recipe: (id: string) => ['recipe', id],
  windows: () => ['window'],
  coupons: () => ['coupons'],
  coupon: (id: string) => ['coupon', id],
  ledger: (...query: string[]) => ['ledger', ...query],
  ledgerFilters: () => ['ledger-filters'],
  ledgerChoices: () => ['ledger', 'choices'],
  run: (id: string) => ['run', id],
  trays: (runId: string) => ['trays', runId],
  fault: (kind: string, id: string) => ['faults', kind, id],
  foundCauses: (...of: string[]) => ['faults', 'causes', ...of],
  questions: () => ['questions'],
  substrateSheet: (id: string) => ['ledger', 'sheet', id],
  upkeep: (itemId: string) => ['upkeep', itemId],
  sample: (runId: string) => ['sample', runId],
  coatTrend: (compoundId?: string) => (compoundId ? ['coat-trend', compoundId] : ['coat-trend']),
  remarks: (ticketId: string) => ['remarks', ticketId],
  statedSettings: () => ['stated-settings'],
  identifications: (...of: string[]) => ['identifications', ...of],
} as const;

export type Key = readonly string[];

/** Names of the operations that write. */
export type WriteName = Extract<
  RouteName,
  `${'create' | 'change' | 'revise' | 'retire' | 'end' | 'store' | 'mark' | 'start' | 'look' | 'act' | 'settle' | 'redesign' | 'import'}${string}`
>;

/** What a write is about: its parameters and body, as far as the keys need them. */
interface Written {
  readonly params?: Readonly<Record<string, string>> | undefined;
  readonly body?: unknown;
}

const ticketIn = ({ params }: Written) => [KEYS.ticket(params!['id']!), KEYS.today()];
const field = ({ body }: Written, name: string) => (body as Record<string, string | null>)[name] ?? '';
const couponIn = ({ params }: Written) => [KEYS.coupon(params!['id']!), KEYS.coupons(), KEYS.today(), KEYS.windows()];
const ofRun = ({ params }: Written, ticket: readonly Key[]) => [
  KEYS.run(params!['id']!),
  KEYS.ledger(),
  KEYS.today(),
  ...ticket,
];
/** A run or timer does not say whose it is: the ticket that is open. */
const ANY_TICKET: readonly Key[] = [['ticket']];

/** The keys that each write changes; the ones on screen are asked again, the others when they are next looked at. */
export const TOUCHES: { readonly [N in WriteName]: (written: Written) => readonly Key[] } = {
  createOperator: () => [KEYS.operators()],
  changeOperator: () => [KEYS.operators()],
  changeWorkshop: () => [KEYS.workshop()],
  createInventoryItem: () => [KEYS.inventory(), KEYS.today(), ['choice']],
  createInventoryItems: () => [KEYS.inventory(), KEYS.today(), ['choice']],
  reviseInventoryItem: ({ params }) => [
    KEYS.inventory(),
    KEYS.item(params!['id']!),
    KEYS.today(),
    ['choice'],
    ...ANY_TICKET,
  ],
  retireInventoryItem: ({ params }) => [KEYS.inventory(), KEYS.item(params!['id']!), KEYS.today(), ['choice']],
  importInventory: () => [KEYS.inventory(), ['item'], KEYS.today(), ['choice'], ...ANY_TICKET],
  createRemark: (written) => [KEYS.remarks(field(written, 'ticketId'))],
  retireRemark: () => [['remarks']],
  createIdentification: () => [KEYS.identifications(), KEYS.inventory(), KEYS.today(), ...ANY_TICKET],
  createChoice: (written) => [...ticketIn(written), KEYS.choice(written.params!['id']!), KEYS.tickets()],
  createTicket: () => [KEYS.tickets(), KEYS.today()],
  changeTicket: (written) => [...ticketIn(written), KEYS.tickets(), KEYS.choice(written.params!['id']!)],
  createCheck: ticketIn,
  createTimer: (written) => [...ticketIn(written), KEYS.timers()],
  endTimer: () => [...ANY_TICKET, KEYS.timers(), KEYS.today()],
  createWeighing: (written) => [...ticketIn(written), KEYS.coatTrend(), ['choice'], ['item']],
  createCoatReading: ticketIn,
  createCoatPicture: ticketIn,
  storeCoat: ticketIn,
  endStoredCoat: () => [...ANY_TICKET, KEYS.today()],
  createPlaceReading: ticketIn,
  createFitting: () => [...ANY_TICKET, KEYS.today()],
  createSheet: ticketIn,
  createDurabilityTest: (written) => [...ticketIn(written), KEYS.lasting(), ['choice']],
  createDurabilityLook: () => [...ANY_TICKET, KEYS.today(), KEYS.lasting(), ['choice']],
  createVerdict: (written) => [...ticketIn(written), KEYS.tickets()],
  createArtwork: ticketIn,
  createLayout: (written) => [...ticketIn(written), KEYS.tickets(), KEYS.choice(written.params!['id']!)],
  createCard: () => [KEYS.cards()],
  createCoupon: (written) => [KEYS.coupons(), KEYS.today(), KEYS.ticket(field(written, 'ticketId'))],
  redesignCoupon: couponIn,
  markBurnt: (written) => [...couponIn(written), ...ANY_TICKET],
  startBurn: (written) => [...couponIn(written), ...ANY_TICKET],
  actOnBurn: () => [['coupon']],
  settleBurn: () => [['coupon'], KEYS.coupons(), KEYS.today(), ...ANY_TICKET],
  createCouponPicture: couponIn,
  createReading: (written) => [...couponIn(written), ...ANY_TICKET, ['choice']],
  createTestStep: ticketIn,
  createRecipe: () => [...ANY_TICKET, KEYS.windows(), KEYS.today()],
  createRecipeUse: (written) => ticketIn(written),
  createRecipeState: ({ params }) => [KEYS.recipe(params!['id']!), ...ANY_TICKET, KEYS.windows(), KEYS.today()],
  createLedgerFilter: () => [KEYS.ledgerFilters()],
  retireLedgerFilter: () => [KEYS.ledgerFilters()],
  createRun: (written) => [KEYS.ticket(field(written, 'ticketId')), KEYS.ledger(), KEYS.today(), ['choice']],
  createCleaning: (written) => ofRun(written, [...ANY_TICKET, ['choice'], ['cleaning-advice']]),
  createJudgement: (written) => ofRun(written, [...ANY_TICKET, ['choice'], ['recipe'], KEYS.windows()]),
  createSampleDraw: ({ params }) => [KEYS.sample(params!['id']!)],
  createTrayReading: ({ params }) => [KEYS.trays(params!['id']!)],
  createFaultCase: () => [['faults']],
  createFaultLook: () => [['faults']],
  createFaultTest: () => [['faults']],
  createFaultFinding: () => [
    ...[['faults'], KEYS.questions(), KEYS.inventory(), ['item'], ['recipe'], KEYS.windows(), KEYS.today()],
    ...ANY_TICKET,
  ],
  createRework: (written) => [...ticketIn(written), ['faults']],
  endQuestion: () => [KEYS.questions(), KEYS.today(), ...ANY_TICKET],
  createUpkeep: ({ params }) => [KEYS.upkeep(params!['id']!)],
  createPieceFault: ({ params }) => [KEYS.sample(params!['id']!)],
  createPieceCheck: ({ params }) => [KEYS.sample(params!['id']!)],
  createMarking: ticketIn,
  startRunBurn: () => ANY_TICKET,
  actOnRunBurn: () => ANY_TICKET,
  settleRunBurn: () => [...ANY_TICKET, KEYS.today()],
  createPieceEvent: () => [...ANY_TICKET, KEYS.today()],
  createFirstPiece: () => ANY_TICKET,
  endMarking: () => [...ANY_TICKET, KEYS.ledger(), KEYS.today(), ['choice']],
  importLedger: () => [KEYS.ledger(), ['run'], KEYS.today(), ...ANY_TICKET],
  createStatedSetting: () => [KEYS.statedSettings()],
  createStatedSettings: () => [KEYS.statedSettings()],
};
