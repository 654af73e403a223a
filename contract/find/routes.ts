import { route } from '../routing/index.js';
import { findings, findQuery } from './find.js';

export const findRoutes = {
  find: route({
    method: 'get',
    path: '/api/find',
    summary: 'Tickets, coupons, runs, settings and things in the stores that hold some words',
    params: {},
    query: findQuery,
    answer: findings,
  }),
} as const;
