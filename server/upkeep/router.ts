import { upkeepRoutes } from '@unto/contract';
import { router } from '../http/router.js';
import { createUpkeep, upkeepOf } from './service.js';

export const upkeepRouter = router(upkeepRoutes, {
  upkeep: (context, { params }) => upkeepOf(context, params.id),
  createUpkeep: (context, { params, body }) => createUpkeep(context, params.id, body),
});
