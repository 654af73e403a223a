import { uuid } from '../fields/index.js';
import { ticketPage } from './ticket-page.js';
import { route } from '../routing/index.js';

export const ticketPageRoutes = {
  ticket: route({
    method: 'get',
    path: '/api/tickets/:id',
    summary: 'A ticket with everything recorded on it',
    params: { id: uuid() },
    answer: ticketPage,
  }),
} as const;
