import { FILE_SCHEMAS, fileSchema, openApiDocument, systemRoutes } from '@unto/contract';
import { nothingUnder } from './db/context.js';
import { deviceRouter } from './bench-devices/router.js';
import { artworkRouter } from './artworks/router.js';
import { cardRouter } from './cards/router.js';
import { choiceRouter } from './choice/router.js';
import { coatRouter } from './coat/router.js';
import { couponRouter } from './coupons/router.js';
import { fileRouter } from './files/router.js';
import { router, type Mounted } from './http/router.js';
import { findRouter } from './find/router.js';
import { identifyRouter } from './identify/router.js';
import { inventoryRouter } from './inventory/router.js';
import { paperRouter } from './paper/router.js';
import { programRouter } from './programs/router.js';
import { durabilityRouter } from './durability/router.js';
import { verdictRouter } from './verdicts/router.js';
import { placeRouter } from './place/router.js';
import { prepareRouter } from './prepare/router.js';
import { recipeRouter } from './recipes/router.js';
import { remarkRouter } from './remarks/router.js';
import { markingRouter } from './markings/router.js';
import { runRouter } from './runs/router.js';
import { sampleRouter } from './samples/router.js';
import { statedSettingRouter } from './stated-settings/router.js';
import { faultRouter } from './faults/router.js';
import { questionRouter } from './questions/router.js';
import { upkeepRouter } from './upkeep/router.js';
import { substrateSheetRouter } from './substrate-sheets/router.js';
import { trayRouter } from './trays/router.js';
import { ticketPageRouter } from './ticket-page/router.js';
import { ticketRouter } from './tickets/router.js';
import { todayRouter } from './today/router.js';
import { windowRouter } from './windows/router.js';
import { workshopRouter } from './workshop/router.js';

/** Made once: the routes do not change while the server runs. */
let document: ReturnType<typeof openApiDocument> | undefined;

const systemRouter = router(systemRoutes, {
  health: async (context) => {
    await context.sequelize.query('SELECT 1');
    return { state: 'up' as const, diskFree: await context.files.freeShare() };
  },
  openapi: async () => (document ??= openApiDocument()),
  fileSchema: async (_context, { params }) => {
    const file = FILE_SCHEMAS.find((one) => one === params.file);
    if (!file) throw nothingUnder(params.file);
    return fileSchema(file);
  },
});

/** What answers every route of the contract, a router a resource. */
export const ROUTERS: readonly Mounted[] = [
  systemRouter,
  workshopRouter,
  todayRouter,
  findRouter,
  inventoryRouter,
  fileRouter,
  identifyRouter,
  choiceRouter,
  ticketRouter,
  ticketPageRouter,
  cardRouter,
  coatRouter,
  deviceRouter,
  placeRouter,
  artworkRouter,
  durabilityRouter,
  trayRouter,
  faultRouter,
  questionRouter,
  upkeepRouter,
  substrateSheetRouter,
  verdictRouter,
  programRouter,
  prepareRouter,
  couponRouter,
  paperRouter,
  recipeRouter,
  windowRouter,
  runRouter,
  markingRouter,
  sampleRouter,
  statedSettingRouter,
  remarkRouter,
].flat();
