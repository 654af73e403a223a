import { object } from 'yup';
import { list, optionalUuid, uuid } from '../fields/index.js';
import { route } from '../routing/index.js';
import { createDurabilityLook, createDurabilityTest, durabilityTest, lastingRow } from './durability.js';

export const durabilityRoutes = {
  createDurabilityTest: route({
    method: 'post',
    path: '/api/tickets/:id/durability',
    summary: 'Begin a test of what a mark stands',
    params: { id: uuid() },
    body: createDurabilityTest,
    answer: list(durabilityTest),
  }),
  createDurabilityLook: route({
    method: 'post',
    path: '/api/durability/:id/looks',
    summary: 'Say how a mark stands after so much of its test',
    params: { id: uuid() },
    body: createDurabilityLook,
    answer: list(durabilityTest),
  }),
  lasting: route({
    method: 'get',
    path: '/api/durability',
    summary: 'What marks stood, the newest look of every test, to be compared',
    params: {},
    query: object({ substrateId: optionalUuid() }),
    answer: list(lastingRow),
  }),
} as const;
