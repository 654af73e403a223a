import type { Schema } from 'yup';
import {
  coatTrendQuery,
  createClock,
  createCoatPicture,
  createCoatReading,
  createWeighing,
  endClock,
  endStoredCoat,
  storeCoat,
} from '../coat/index.js';
import { createChoice } from '../choice/index.js';
import {
  createClimbStep,
  createCoupon,
  createCouponPicture,
  createReading,
  listCouponsQuery,
  markBurnt,
  redesignCoupon,
  takeCouponPicture,
} from '../coupons/index.js';
import { actOnBurn, cardQuery, settleBurn, startBurn, takePicture, weighOnScale } from '../devices/index.js';
import { keepFileQuery } from '../files/index.js';
import { createIdentification, listIdentificationsQuery } from '../identify/index.js';
import { createFitting, createPlaceReading } from '../place/index.js';
import { createSheet } from '../prepare/index.js';
import { createStatedSetting } from '../practice/index.js';
import { createRecipe } from '../recipes/index.js';
import { createCleaning, createJudgement, createRun, importLedger, ledgerQuery } from '../runs/index.js';
import {
  createStoreItem,
  exportStoresQuery,
  importStores,
  listStoreQuery,
  retireStoreItem,
  reviseStoreItem,
} from '../stores/index.js';
import { changeTicket, createCheck, createTicket, listTicketsQuery } from '../tickets/index.js';
import { changeWorkshop, createOperator } from './bench.js';

/** One operation of the API. The server mounts exactly these, and the OpenAPI document lists exactly these. */
export interface Route {
  readonly method: 'get' | 'post' | 'put';
  readonly path: string;
  readonly summary: string;
  readonly body?: Schema | undefined;
  readonly query?: Schema | undefined;
  /** Media type of the answer where it is not JSON. */
  readonly answers?: string | undefined;
  /** The body is a file as it is, not JSON. */
  readonly takesFile?: boolean | undefined;
}

export const ROUTES = {
  health: { method: 'get', path: '/api/health', summary: 'Whether server and database answer' },
  openapi: { method: 'get', path: '/api/openapi.json', summary: 'This document' },
  today: { method: 'get', path: '/api/today', summary: 'What to do next, running clocks, what runs short' },
  workshop: { method: 'get', path: '/api/workshop', summary: 'Settings of the shop' },
  changeWorkshop: {
    method: 'put',
    path: '/api/workshop',
    summary: 'Change the settings of the shop',
    body: changeWorkshop,
  },
  listOperators: { method: 'get', path: '/api/operators', summary: 'Who works here' },
  createOperator: { method: 'post', path: '/api/operators', summary: 'Add an operator', body: createOperator },
  listStores: {
    method: 'get',
    path: '/api/stores',
    summary: 'Store items with their newest revisions',
    query: listStoreQuery,
  },
  storeHistory: { method: 'get', path: '/api/stores/:id/revisions', summary: 'All revisions of an item, newest first' },
  createStoreItem: { method: 'post', path: '/api/stores', summary: 'Add an item', body: createStoreItem },
  reviseStoreItem: { method: 'put', path: '/api/stores/:id', summary: 'Make a new revision', body: reviseStoreItem },
  retireStoreItem: {
    method: 'put',
    path: '/api/stores/:id/retired',
    summary: 'Retire an item or take it back',
    body: retireStoreItem,
  },
  storeUse: { method: 'get', path: '/api/stores/:id/use', summary: 'What rests on an item, and what is left in it' },
  storesJson: { method: 'get', path: '/api/stores.json', summary: 'Store items as JSON', query: exportStoresQuery },
  storesCsv: {
    method: 'get',
    path: '/api/stores.csv',
    summary: 'Store items of one kind as CSV',
    query: exportStoresQuery,
    answers: 'text/csv',
  },
  importStores: {
    method: 'post',
    path: '/api/stores/import',
    summary: 'Bring store items back from a file',
    body: importStores,
  },
  keepFile: {
    method: 'post',
    path: '/api/files',
    summary: 'Keep a file (PDF, PNG, JPEG) under the hash of its content',
    query: keepFileQuery,
    takesFile: true,
  },
  file: {
    method: 'get',
    path: '/api/files/:hash',
    summary: 'A kept file',
    answers: 'application/octet-stream',
  },
  listIdentifications: {
    method: 'get',
    path: '/api/identifications',
    summary: 'What parts were taken to be, newest first',
    query: listIdentificationsQuery,
  },
  createIdentification: {
    method: 'post',
    path: '/api/identifications',
    summary: 'Keep what was seen of a part and what it is taken to be',
    body: createIdentification,
  },
  choice: {
    method: 'get',
    path: '/api/tickets/:id/choice',
    summary: 'Options and methods for a ticket with their evidence, and the choices taken',
  },
  createChoice: {
    method: 'post',
    path: '/api/tickets/:id/choices',
    summary: 'Take an option for a ticket',
    body: createChoice,
  },
  listTickets: { method: 'get', path: '/api/tickets', summary: 'Tickets, newest first', query: listTicketsQuery },
  createTicket: { method: 'post', path: '/api/tickets', summary: 'Open a ticket', body: createTicket },
  ticket: {
    method: 'get',
    path: '/api/tickets/:id',
    summary: 'A ticket with checks, clocks, weighings, coupons, recipes and runs',
  },
  changeTicket: { method: 'put', path: '/api/tickets/:id', summary: 'Change a ticket', body: changeTicket },
  createCheck: {
    method: 'post',
    path: '/api/tickets/:id/checks',
    summary: 'Tick something off, or acknowledge a caution',
    body: createCheck,
  },
  createClock: { method: 'post', path: '/api/tickets/:id/clocks', summary: 'Start a clock', body: createClock },
  endClock: { method: 'put', path: '/api/clocks/:id/end', summary: 'End a clock', body: endClock },
  createWeighing: {
    method: 'post',
    path: '/api/tickets/:id/weighings',
    summary: 'Enter a weighing',
    body: createWeighing,
  },
  listClocks: { method: 'get', path: '/api/clocks', summary: 'Clocks that run' },
  createCoatReading: {
    method: 'post',
    path: '/api/tickets/:id/coat-readings',
    summary: 'Keep a comb reading or the looks of a coat',
    body: createCoatReading,
  },
  createCoatPicture: {
    method: 'post',
    path: '/api/tickets/:id/coat-pictures',
    summary: 'Keep a picture of a dry coat with its film cell by cell and what was done',
    body: createCoatPicture,
  },
  coatTrend: {
    method: 'get',
    path: '/api/coat-trend',
    summary: 'Coats as weighed, oldest first, of one compound or all',
    query: coatTrendQuery,
  },
  storeCoat: {
    method: 'post',
    path: '/api/tickets/:id/stored-coats',
    summary: 'Lay coated, dry pieces on the shelf',
    body: storeCoat,
  },
  endStoredCoat: {
    method: 'put',
    path: '/api/stored-coats/:id/end',
    summary: 'Take stored pieces up, or rinse them off',
    body: endStoredCoat,
  },
  devices: { method: 'get', path: '/api/devices', summary: 'Devices this server is tied to' },
  takePicture: {
    method: 'post',
    path: '/api/devices/camera/picture',
    summary: 'Take a picture of a coated part and keep it as a file',
    body: takePicture,
  },
  weighOnScale: {
    method: 'post',
    path: '/api/devices/scale/weigh',
    summary: 'Read the scale once it has settled; nothing is kept',
    body: weighOnScale,
  },
  createPlaceReading: {
    method: 'post',
    path: '/api/tickets/:id/place-readings',
    summary: 'Keep a focus hunt, a flatness map, a centre or a round part',
    body: createPlaceReading,
  },
  createFitting: {
    method: 'post',
    path: '/api/fittings',
    summary: 'Say that a head and lens were fitted, every step of the change done',
    body: createFitting,
  },
  createSheet: {
    method: 'post',
    path: '/api/tickets/:id/sheets',
    summary: 'Keep the layout of a sheet or jig',
    body: createSheet,
  },
  listCoupons: { method: 'get', path: '/api/coupons', summary: 'Coupons, newest first', query: listCouponsQuery },
  createCoupon: { method: 'post', path: '/api/coupons', summary: 'Keep a coupon design', body: createCoupon },
  coupon: { method: 'get', path: '/api/coupons/:id', summary: 'A coupon with its readings' },
  redesignCoupon: {
    method: 'put',
    path: '/api/coupons/:id',
    summary: 'Redesign a coupon that is not burnt',
    body: redesignCoupon,
  },
  markBurnt: { method: 'put', path: '/api/coupons/:id/burnt', summary: 'Say that a coupon was burnt', body: markBurnt },
  startBurn: {
    method: 'post',
    path: '/api/coupons/:id/burns',
    summary: 'Send a coupon’s program to the controller',
    body: startBurn,
  },
  lookAtBurn: {
    method: 'put',
    path: '/api/burns/:id/look',
    summary: 'Ask the controller how far it is, and keep it',
  },
  actOnBurn: { method: 'put', path: '/api/burns/:id/act', summary: 'Pause, resume or stop a run', body: actOnBurn },
  settleBurn: {
    method: 'put',
    path: '/api/burns/:id/settle',
    summary: 'Take a run that broke off as partly done, or burn its other cells',
    body: settleBurn,
  },
  takeCouponPicture: {
    method: 'post',
    path: '/api/coupons/:id/camera',
    summary: 'Take a picture of a coupon on its card and keep it as a file',
    body: takeCouponPicture,
  },
  createCouponPicture: {
    method: 'post',
    path: '/api/coupons/:id/pictures',
    summary: 'Keep what a picture of a coupon tells of its cells',
    body: createCouponPicture,
  },
  couponSheet: {
    method: 'get',
    path: '/api/coupons/:id/sheet.pdf',
    summary: 'Working sheet of a coupon',
    answers: 'application/pdf',
  },
  cardPdf: {
    method: 'get',
    path: '/api/card.pdf',
    summary: 'Reference card to print',
    query: cardQuery,
    answers: 'application/pdf',
  },
  stepScalePdf: {
    method: 'get',
    path: '/api/step-scale.pdf',
    summary: 'Step scale to print, for reading coupons by eye',
    answers: 'application/pdf',
  },
  cardSvg: {
    method: 'get',
    path: '/api/card.svg',
    summary: 'Reference card',
    query: cardQuery,
    answers: 'image/svg+xml',
  },
  createReading: {
    method: 'post',
    path: '/api/coupons/:id/readings',
    summary: 'Enter outcomes of cells',
    body: createReading,
  },
  createClimbStep: {
    method: 'post',
    path: '/api/tickets/:id/climb-steps',
    summary: 'Keep a tiny cell fired on the piece itself',
    body: createClimbStep,
  },
  createRecipe: { method: 'post', path: '/api/recipes', summary: 'Accept a setting as a recipe', body: createRecipe },
  createRun: { method: 'post', path: '/api/runs', summary: 'Log a run', body: createRun },
  run: { method: 'get', path: '/api/runs/:id', summary: 'A run with its cleaning and judgement' },
  createCleaning: {
    method: 'post',
    path: '/api/runs/:id/cleanings',
    summary: 'Log how a run was cleaned',
    body: createCleaning,
  },
  createJudgement: { method: 'post', path: '/api/runs/:id/judgements', summary: 'Judge a run', body: createJudgement },
  ledger: { method: 'get', path: '/api/ledger', summary: 'The record, newest first, by cursor', query: ledgerQuery },
  ledgerCsv: {
    method: 'get',
    path: '/api/ledger.csv',
    summary: 'The record as CSV',
    query: ledgerQuery,
    answers: 'text/csv',
  },
  ledgerJson: { method: 'get', path: '/api/ledger.json', summary: 'The record as JSON', query: ledgerQuery },
  importLedger: {
    method: 'post',
    path: '/api/ledger/import',
    summary: 'Bring an exported record back',
    body: importLedger,
  },
  listPractice: { method: 'get', path: '/api/practice', summary: 'Stated settings' },
  createStatedSetting: {
    method: 'post',
    path: '/api/practice',
    summary: 'Keep a stated setting',
    body: createStatedSetting,
  },
} as const satisfies Record<string, Route>;

export type RouteName = keyof typeof ROUTES;
