import { findRoutes } from '@unto/contract';
import { router } from '../http/router.js';
import { findThings } from './service.js';

export const findRouter = router(findRoutes, { find: (context, { query }) => findThings(context, query) });
