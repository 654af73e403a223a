import { list, uuid } from '../fields/index.js';
import { changeOperator, changeWorkshop, createOperator, operator } from './workshop.js';
import { route } from '../routing/index.js';

export const workshopRoutes = {
  workshop: route({
    method: 'get',
    path: '/api/workshop',
    summary: 'Settings of the shop',
    params: {},
    answer: changeWorkshop,
  }),
  changeWorkshop: route({
    method: 'put',
    path: '/api/workshop',
    summary: 'Change the settings of the shop',
    params: {},
    body: changeWorkshop,
    answer: changeWorkshop,
  }),
  listOperators: route({
    method: 'get',
    path: '/api/operators',
    summary: 'Who works here',
    params: {},
    answer: list(operator),
  }),
  createOperator: route({
    method: 'post',
    path: '/api/operators',
    summary: 'Add an operator',
    params: {},
    body: createOperator,
    answer: operator,
    withoutOperator: true,
  }),
  changeOperator: route({
    method: 'put',
    path: '/api/operators/:id',
    summary: 'Rename an operator, or retire one',
    params: { id: uuid() },
    body: changeOperator,
    answer: operator,
  }),
} as const;
