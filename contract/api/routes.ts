import { mixed, string } from 'yup';
import { workshopRoutes } from '../workshop/routes.js';
import { todayRoutes } from '../today/routes.js';
import { findRoutes } from '../find/routes.js';
import { inventoryRoutes } from '../inventory/routes.js';
import { fileRoutes } from '../files/routes.js';
import { identifyRoutes } from '../identify/routes.js';
import { choiceRoutes } from '../choice/routes.js';
import { ticketRoutes } from '../tickets/routes.js';
import { ticketPageRoutes } from '../ticket-page/routes.js';
import { cardRoutes } from '../cards/routes.js';
import { coatRoutes } from '../coat/routes.js';
import { deviceRoutes } from '../devices/routes.js';
import { artworkRoutes } from '../artworks/routes.js';
import { programRoutes } from '../programs/routes.js';
import { durabilityRoutes } from '../durability/routes.js';
import { verdictRoutes } from '../verdicts/verdicts.js';
import { placeRoutes } from '../place/routes.js';
import { prepareRoutes } from '../prepare/routes.js';
import { couponRoutes } from '../coupons/routes.js';
import { paperRoutes } from '../paper/routes.js';
import { recipeRoutes } from '../recipes/routes.js';
import { windowRoutes } from '../windows/routes.js';
import { runRoutes } from '../runs/routes.js';
import { markingRoutes } from '../markings/routes.js';
import { sampleRoutes } from '../samples/routes.js';
import { trayRoutes } from '../trays/routes.js';
import { faultRoutes } from '../faults/routes.js';
import { questionRoutes } from '../questions/questions.js';
import { upkeepRoutes } from '../upkeep/upkeep.js';
import { substrateSheetRoutes } from '../substrate-sheets/substrate-sheets.js';
import { remarkRoutes } from '../remarks/routes.js';
import { statedSettingRoutes } from '../stated-settings/routes.js';
import { amount, orNull, record, word } from '../fields/index.js';
import { route, type Route } from '../routing/index.js';

export const systemRoutes = {
  health: route({
    method: 'get',
    path: '/api/health',
    summary: 'Whether server and database answer, and what share of its disk is free',
    params: {},
    alive: true,
    answer: record({ state: word(['up']), diskFree: orNull(amount()) }),
  }),
  openapi: route({
    method: 'get',
    path: '/api/openapi.json',
    summary: 'This document',
    params: {},
    alive: true,
    answer: mixed<object>().required(),
  }),
  fileSchema: route({
    method: 'get',
    path: '/api/schemas/:file',
    summary: 'JSON Schema of a file that goes out as JSON: ledger, stores',
    params: { file: string().required().max(40) },
    alive: true,
    answer: mixed<object>().required(),
  }),
} as const;

/** Every operation of the API by its name: what the server mounts, the client calls, and the OpenAPI document lists. */
export const ROUTES = {
  ...systemRoutes,
  ...workshopRoutes,
  ...todayRoutes,
  ...findRoutes,
  ...inventoryRoutes,
  ...fileRoutes,
  ...identifyRoutes,
  ...choiceRoutes,
  ...ticketRoutes,
  ...ticketPageRoutes,
  ...cardRoutes,
  ...coatRoutes,
  ...deviceRoutes,
  ...placeRoutes,
  ...artworkRoutes,
  ...durabilityRoutes,
  ...verdictRoutes,
  ...programRoutes,
  ...prepareRoutes,
  ...couponRoutes,
  ...paperRoutes,
  ...recipeRoutes,
  ...windowRoutes,
  ...runRoutes,
  ...markingRoutes,
  ...sampleRoutes,
  ...trayRoutes,
  ...faultRoutes,
  ...questionRoutes,
  ...upkeepRoutes,
  ...substrateSheetRoutes,
  ...statedSettingRoutes,
  ...remarkRoutes,
} as const satisfies Record<string, Route>;

export type Routes = typeof ROUTES;
export type RouteName = keyof Routes;
