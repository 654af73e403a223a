import { choiceRoutes } from '@unto/contract';
import { router } from '../http/router.js';
import { choicePage, createChoice } from './service.js';

export const choiceRouter = router(choiceRoutes, {
  choice: (context, { params }) => choicePage(context, params.id),
  createChoice: (context, { params, body }) => createChoice(context, params.id, body),
});
