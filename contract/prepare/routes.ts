import { uuid } from '../fields/index.js';
import { createSheet, sheet } from './sheet.js';
import { route } from '../routing/index.js';

export const prepareRoutes = {
  createSheet: route({
    method: 'post',
    path: '/api/tickets/:id/sheets',
    summary: 'Keep the layout of a sheet or jig',
    params: { id: uuid() },
    body: createSheet,
    answer: sheet,
  }),
} as const;
