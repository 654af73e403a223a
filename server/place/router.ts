import { placeRoutes } from '@unto/contract';
import { router } from '../http/router.js';
import { createFitting } from './fittings.js';
import { createPlaceReading } from './service.js';

export const placeRouter = router(placeRoutes, {
  createPlaceReading: (context, { params, body }) => createPlaceReading(context, params.id, body),
  createFitting: (context, { body }) => createFitting(context, body),
});
