import { trayRoutes } from '@unto/contract';
import { router } from '../http/router.js';
import { markDrawing } from './marked.js';
import { askTrayPicture, createTrayReading, trayReadings } from './service.js';

export const trayRouter = router(trayRoutes, {
  trayReadings: (context, { params }) => trayReadings(context, params.id),
  pieceDrawing: async (context, { params, query }) => ({
    drawing: await markDrawing(context, params.id, query.piece),
  }),
  createTrayReading: (context, { params, body }) => createTrayReading(context, params.id, body),
  takeTrayPicture: (context, { params, body }) => askTrayPicture(context, params.id, body),
});
