import { list, page, uuid } from '../fields/index.js';
import { inventoryItem } from './bodies.js';
import {
  createInventoryItem,
  exportInventoryQuery,
  importInventory,
  inventoryFile,
  inventoryReport,
  inventoryRevision,
  inventoryUse,
  listInventoryQuery,
  retireInventoryItem,
  reviseInventoryItem,
} from './requests.js';
import { route } from '../routing/index.js';

export const inventoryRoutes = {
  listInventory: route({
    method: 'get',
    path: '/api/inventory',
    summary: 'What the shop keeps, with its newest revisions, by cursor',
    params: {},
    query: listInventoryQuery,
    answer: page(inventoryItem),
  }),
  inventoryHistory: route({
    method: 'get',
    path: '/api/inventory/:id/revisions',
    summary: 'All revisions of an item, newest first',
    params: { id: uuid() },
    answer: list(inventoryRevision),
  }),
  createInventoryItem: route({
    method: 'post',
    path: '/api/inventory',
    summary: 'Add an item',
    params: {},
    body: createInventoryItem,
    answer: inventoryItem,
  }),
  reviseInventoryItem: route({
    method: 'put',
    path: '/api/inventory/:id',
    summary: 'Make a new revision',
    params: { id: uuid() },
    body: reviseInventoryItem,
    answer: inventoryItem,
  }),
  retireInventoryItem: route({
    method: 'put',
    path: '/api/inventory/:id/retired',
    summary: 'Retire an item or take it back',
    params: { id: uuid() },
    body: retireInventoryItem,
    answer: inventoryItem,
  }),
  inventoryUse: route({
    method: 'get',
    path: '/api/inventory/:id/use',
    summary: 'What rests on an item, and what is left in it',
    params: { id: uuid() },
    answer: inventoryUse,
  }),
  inventoryJson: route({
    method: 'get',
    path: '/api/inventory.json',
    summary: 'What the shop keeps, as JSON',
    params: {},
    query: exportInventoryQuery,
    answer: inventoryFile,
  }),
  inventoryCsv: route({
    method: 'get',
    path: '/api/inventory.csv',
    summary: 'Items of one kind as CSV',
    params: {},
    query: exportInventoryQuery,
    answer: { media: 'text/csv' },
  }),
  importInventory: route({
    method: 'post',
    path: '/api/inventory/import',
    summary: 'Bring items back from a file',
    params: {},
    body: importInventory,
    answer: inventoryReport,
  }),
} as const;
