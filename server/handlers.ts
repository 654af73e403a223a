import {
  openApiDocument,
  type CreateChoice,
  type CreateCleaning,
  type CreateClimbStep,
  type CreateCoatPicture,
  type CreateCoatReading,
  type ControllerAction,
  type CreateCoupon,
  type CreateCouponPicture,
  type CreateFitting,
  type CreateIdentification,
  type CreateJudgement,
  type CreateOperator,
  type CreatePlaceReading,
  type CreateReading,
  type CreateRecipe,
  type CreateRun,
  type CreateSheet,
  type CreateStatedSetting,
  type CreateStoreItem,
  type CreateTicket,
  type CreateCheck,
  type CreateClock,
  type CreateWeighing,
  type ChangeTicket,
  type EndStoredCoat,
  type ImportStores,
  type LedgerQuery,
  type RetireStoreItem,
  type ReviseStoreItem,
  type StartBurn,
  type StoreCoat,
  type TakePicture,
  type WeighOnScale,
  type Workshop,
} from '@unto/contract';
import { cardSvg, type CardSize, type CouponDesign, type Stage } from '@unto/core';
import * as choice from './choice/service.js';
import * as clocks from './clocks/service.js';
import { createCoatPicture } from './coat/pictures.js';
import { createCoatReading } from './coat/readings.js';
import { endStoredCoat, storeCoat } from './coat/stored.js';
import { coatTrend } from './coat/trend.js';
import { createWeighing } from './coat/weighings.js';
import * as burns from './coupons/burns.js';
import * as pictures from './coupons/pictures.js';
import { createClimbStep } from './coupons/climb.js';
import { createReading } from './coupons/readings.js';
import * as coupons from './coupons/service.js';
import { getCoupon, listCoupons } from './coupons/view.js';
import { takePicture } from './devices/take-picture.js';
import { weighOnScale } from './devices/weigh.js';
import * as keptFiles from './files/service.js';
import { FileAnswer, type Call, type Handlers } from './http/mount.js';
import * as identify from './identify/service.js';
import { createFitting } from './place/fittings.js';
import * as places from './place/service.js';
import { createSheet } from './prepare/sheets.js';
import { cardPdf, couponSheet, stepScalePdf } from './paper/papers.js';
import * as practice from './practice/service.js';
import * as recipes from './recipes/service.js';
import { importLedger } from './runs/import.js';
import * as ledger from './runs/ledger.js';
import * as files from './runs/ledger-files.js';
import * as runs from './runs/service.js';
import * as storeFiles from './stores/import-stores.js';
import * as stores from './stores/service.js';
import { storeUse } from './stores/use.js';
import { ticketPage } from './tickets/facts.js';
import * as tickets from './tickets/service.js';
import { today } from './today/service.js';
import * as workshop from './workshop/service.js';

const id = ({ params }: { params: Readonly<Record<string, string>> }) => params['id']!;

/** What answers each route of the contract. */
export const handlers: Handlers = {
  health: async (context) => {
    await context.sequelize.query('SELECT 1');
    return { state: 'up' };
  },
  openapi: async () => openApiDocument(),
  today: (context) => today(context),
  workshop: (context) => workshop.workshop(context),
  changeWorkshop: (context, { body }: Call<Workshop>) => workshop.changeWorkshop(context, body),
  listOperators: (context) => workshop.listOperators(context),
  createOperator: (context, { body }: Call<CreateOperator>) => workshop.createOperator(context, body),
  listStores: (context, { query }: Call<unknown, { kind?: string; retired?: number }>) =>
    stores.listStores(context, query),
  storeHistory: (context, call) => stores.storeHistory(context, id(call)),
  createStoreItem: (context, { body }: Call<CreateStoreItem>) => stores.createStoreItem(context, body),
  reviseStoreItem: (context, call: Call<ReviseStoreItem>) => stores.reviseStoreItem(context, id(call), call.body),
  retireStoreItem: (context, call: Call<RetireStoreItem>) => stores.retireStoreItem(context, id(call), call.body),
  storeUse: (context, call) => storeUse(context, id(call)),
  storesJson: (context, { query }: Call<unknown, { kind?: string }>) => storeFiles.exportStoresJson(context, query),
  storesCsv: (context, { query }: Call<unknown, { kind?: string }>) => storeFiles.exportStoresCsv(context, query),
  importStores: (context, { body }: Call<ImportStores>) => storeFiles.importStores(context, body),
  keepFile: (context, { body, query }: Call<Buffer, { name: string }>) => keptFiles.keepFile(context, query.name, body),
  file: async (context, { params }) => {
    const { name, mediaType, content } = await keptFiles.readFile(context, params['hash']!);
    return new FileAnswer(name, mediaType, content);
  },
  listIdentifications: (context, { query }: Call<unknown, { ticketId?: string; blankId?: string }>) =>
    identify.listIdentifications(context, query),
  createIdentification: (context, { body }: Call<CreateIdentification>) => identify.createIdentification(context, body),
  choice: (context, call) => choice.choicePage(context, id(call)),
  createChoice: (context, call: Call<CreateChoice>) => choice.createChoice(context, id(call), call.body),
  listTickets: (context, { query }: Call<unknown, { state?: string }>) => tickets.listTickets(context, query),
  createTicket: (context, { body }: Call<CreateTicket>) => tickets.createTicket(context, body),
  ticket: (context, call) => ticketPage(context, id(call)),
  changeTicket: (context, call: Call<ChangeTicket>) => tickets.changeTicket(context, id(call), call.body),
  createCheck: (context, call: Call<CreateCheck>) => tickets.createCheck(context, id(call), call.body),
  createClock: (context, call: Call<CreateClock>) => clocks.createClock(context, id(call), call.body),
  endClock: (context, call: Call<{ outcome: 'passed' | 'dropped' }>) =>
    clocks.endClock(context, id(call), call.body.outcome),
  listClocks: (context) => clocks.clocksWhere(context, { endedAt: null }),
  createWeighing: (context, call: Call<CreateWeighing>) => createWeighing(context, id(call), call.body),
  createCoatReading: (context, call: Call<CreateCoatReading>) => createCoatReading(context, id(call), call.body),
  createCoatPicture: (context, call: Call<CreateCoatPicture>) => createCoatPicture(context, id(call), call.body),
  coatTrend: (context, { query }: Call<unknown, { compoundId?: string }>) => coatTrend(context, query),
  storeCoat: (context, call: Call<StoreCoat>) => storeCoat(context, id(call), call.body),
  endStoredCoat: (context, call: Call<EndStoredCoat>) => endStoredCoat(context, id(call), call.body),
  devices: async ({ devices }) => ({
    scale: devices.scale !== null,
    camera: devices.camera !== null,
    controller: devices.controller !== null,
  }),
  takePicture: (context, { body }: Call<TakePicture>) => takePicture(context, body),
  weighOnScale: (context, { body }: Call<WeighOnScale>) => weighOnScale(context, body),
  createPlaceReading: (context, call: Call<CreatePlaceReading>) =>
    places.createPlaceReading(context, id(call), call.body),
  createFitting: (context, { body }: Call<CreateFitting>) => createFitting(context, body),
  createSheet: (context, call: Call<CreateSheet>) => createSheet(context, id(call), call.body),
  listCoupons: (context, { query }: Call<unknown, { ticketId?: string; stage?: string }>) =>
    listCoupons(context, query),
  createCoupon: (context, { body }: Call<CreateCoupon>) => coupons.createCoupon(context, body),
  coupon: (context, call) => getCoupon(context, id(call)),
  redesignCoupon: (context, call: Call<{ version: number; focusOffsetMm: number; design: CouponDesign }>) =>
    coupons.redesignCoupon(context, id(call), call.body),
  markBurnt: (context, call: Call<{ version: number }>) => coupons.markBurnt(context, id(call), call.body.version),
  startBurn: (context, call: Call<StartBurn>) => burns.startBurn(context, id(call), call.body),
  lookAtBurn: (context, call) => burns.lookAtBurn(context, id(call)),
  actOnBurn: (context, call: Call<{ action: ControllerAction }>) =>
    burns.actOnBurn(context, id(call), call.body.action),
  settleBurn: (context, call: Call<{ as: 'partly' | 'resume' }>) => burns.settleBurn(context, id(call), call.body.as),
  takeCouponPicture: (context, call: Call<{ stage: Stage }>) =>
    pictures.takeCouponPicture(context, id(call), call.body.stage),
  createCouponPicture: (context, call: Call<CreateCouponPicture>) =>
    pictures.createCouponPicture(context, id(call), call.body),
  couponSheet: (context, call) => couponSheet(context, id(call)),
  cardPdf: (_context, { query }: Call<unknown, { size: CardSize }>) => cardPdf(query.size),
  stepScalePdf: () => stepScalePdf(),
  cardSvg: async (_context, { query }: Call<unknown, { size: CardSize }>) => cardSvg(query.size),
  createReading: (context, call: Call<CreateReading>) => createReading(context, id(call), call.body),
  createClimbStep: (context, call: Call<CreateClimbStep>) => createClimbStep(context, id(call), call.body),
  createRecipe: (context, { body }: Call<CreateRecipe>) => recipes.createRecipe(context, body),
  createRun: (context, { body }: Call<CreateRun>) => runs.createRun(context, body),
  run: (context, call) => runs.getRun(context, id(call)),
  createCleaning: (context, call: Call<CreateCleaning>) => runs.createCleaning(context, id(call), call.body),
  createJudgement: (context, call: Call<CreateJudgement>) => runs.createJudgement(context, id(call), call.body),
  ledger: (context, { query }: Call<unknown, LedgerQuery>) => ledger.ledgerPage(context, query),
  ledgerCsv: async (context, { query }: Call<unknown, LedgerQuery>) =>
    files.ledgerCsv(await ledger.ledgerAll(context, query)),
  ledgerJson: async (context, { query }: Call<unknown, LedgerQuery>) =>
    files.ledgerJson(await ledger.ledgerAll(context, query)),
  importLedger: (context, { body }: Call<{ format: 'csv' | 'json'; text: string }>) => importLedger(context, body),
  listPractice: (context) => practice.listPractice(context),
  createStatedSetting: (context, { body }: Call<CreateStatedSetting>) => practice.createStatedSetting(context, body),
};
