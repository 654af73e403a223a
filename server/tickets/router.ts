import { ticketRoutes } from '@unto/contract';
import { router } from '../http/router.js';
import * as service from './service.js';

export const ticketRouter = router(ticketRoutes, {
  listTickets: (context, { query }) => service.listTickets(context, query),
  createTicket: (context, { body }) => service.createTicket(context, body),
  changeTicket: (context, { params, body }) => service.changeTicket(context, params.id, body),
  createCheck: (context, { params, body }) => service.createCheck(context, params.id, body),
});
