import { ticketPageRoutes } from '@unto/contract';
import { router } from '../http/router.js';
import { ticketPage } from './page.js';

export const ticketPageRouter = router(ticketPageRoutes, {
  ticket: (context, { params }) => ticketPage(context, params.id),
});
