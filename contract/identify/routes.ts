import { page } from '../fields/index.js';
import { createIdentification, identification, listIdentificationsQuery } from './identify.js';
import { route } from '../routing/index.js';

export const identifyRoutes = {
  listIdentifications: route({
    method: 'get',
    path: '/api/identifications',
    summary: 'What parts were taken to be, newest first, by cursor',
    params: {},
    query: listIdentificationsQuery,
    answer: page(identification),
  }),
  createIdentification: route({
    method: 'post',
    path: '/api/identifications',
    summary: 'Keep what was seen of a part and what it is taken to be',
    params: {},
    body: createIdentification,
    answer: identification,
  }),
} as const;
