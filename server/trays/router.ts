import { trayRoutes } from '@unto/contract';
import { router } from '../http/router.js';
import { askTrayPicture, createTrayReading, trayReadings } from './service.js';

export const trayRouter = router(trayRoutes, {
  trayReadings: (context, { params }) => trayReadings(context, params.id),
  createTrayReading: (context, { params, body }) => createTrayReading(context, params.id, body),
  takeTrayPicture: (context, { params, body }) => askTrayPicture(context, params.id, body),
});
