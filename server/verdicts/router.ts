import { verdictRoutes } from '@unto/contract';
import { router } from '../http/router.js';
import { createVerdict } from './service.js';

export const verdictRouter = router(verdictRoutes, {
  createVerdict: (context, { params, body }) => createVerdict(context, params.id, body),
});
