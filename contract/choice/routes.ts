import { uuid } from '../fields/index.js';
import { ticket } from '../tickets/index.js';
import { choicePage, createChoice } from './choice.js';
import { route } from '../routing/index.js';

export const choiceRoutes = {
  choice: route({
    method: 'get',
    path: '/api/tickets/:id/choice',
    summary: 'Options and methods for a ticket with their evidence, and the choices taken',
    params: { id: uuid() },
    answer: choicePage,
    heavy: true,
    holdsS: 60,
  }),
  createChoice: route({
    method: 'post',
    path: '/api/tickets/:id/choices',
    summary: 'Take an option for a ticket',
    params: { id: uuid() },
    body: createChoice,
    answer: ticket,
  }),
} as const;
