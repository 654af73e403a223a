import { coatRoutes } from '@unto/contract';
import { router } from '../http/router.js';
import * as timers from '../timers/service.js';
import { createCoatPicture } from './pictures.js';
import { createCoatReading } from './readings.js';
import { endStoredCoat, storeCoat } from './stored.js';
import { coatTrend } from './trend.js';
import { createWeighing } from './weighings.js';

export const coatRouter = router(coatRoutes, {
  createTimer: (context, { params, body }) => timers.createTimer(context, params.id, body),
  endTimer: (context, { params, body }) => timers.endTimer(context, params.id, body.outcome),
  listTimers: (context) => timers.timersWhere(context, { endedAt: null }),
  createWeighing: (context, { params, body }) => createWeighing(context, params.id, body),
  createCoatReading: (context, { params, body }) => createCoatReading(context, params.id, body),
  createCoatPicture: (context, { params, body }) => createCoatPicture(context, params.id, body),
  coatTrend: (context, { query }) => coatTrend(context, query),
  storeCoat: (context, { params, body }) => storeCoat(context, params.id, body),
  endStoredCoat: (context, { params, body }) => endStoredCoat(context, params.id, body),
});
