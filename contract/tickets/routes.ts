import { list, page, uuid } from '../fields/index.js';
import { changeTicket, check, createCheck, createTicket, listTicketsQuery, ticket } from './tickets.js';
import { route } from '../routing/index.js';

export const ticketRoutes = {
  listTickets: route({
    method: 'get',
    path: '/api/tickets',
    summary: 'Tickets, newest first, by cursor',
    params: {},
    query: listTicketsQuery,
    answer: page(ticket),
  }),
  createTicket: route({
    method: 'post',
    path: '/api/tickets',
    summary: 'Open a ticket',
    params: {},
    body: createTicket,
    answer: ticket,
  }),
  changeTicket: route({
    method: 'put',
    path: '/api/tickets/:id',
    summary: 'Change a ticket',
    params: { id: uuid() },
    body: changeTicket,
    answer: ticket,
  }),
  createCheck: route({
    method: 'post',
    path: '/api/tickets/:id/checks',
    summary: 'Tick something off, or acknowledge a caution',
    params: { id: uuid() },
    body: createCheck,
    answer: list(check),
  }),
} as const;
