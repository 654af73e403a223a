import { prepareRoutes } from '@unto/contract';
import { router } from '../http/router.js';
import { createSheet } from './sheets.js';

export const prepareRouter = router(prepareRoutes, {
  createSheet: (context, { params, body }) => createSheet(context, params.id, body),
});
