import { cardRoutes } from '@unto/contract';
import { router } from '../http/router.js';
import { createCard, listCards } from './service.js';

export const cardRouter = router(cardRoutes, {
  listCards: (context) => listCards(context),
  createCard: (context, { body }) => createCard(context, body),
});
