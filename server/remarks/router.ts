import { remarkRoutes } from '@unto/contract';
import { router } from '../http/router.js';
import { createRemark, listRemarks, retireRemark } from './service.js';

export const remarkRouter = router(remarkRoutes, {
  listRemarks: (context, { query }) => listRemarks(context, query),
  createRemark: (context, { body }) => createRemark(context, body),
  retireRemark: (context, { params, body }) => retireRemark(context, params.id, body),
});
