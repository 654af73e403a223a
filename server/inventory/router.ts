import { inventoryRoutes } from '@unto/contract';
import { FileAnswer } from '../http/file-answer.js';
import { router } from '../http/router.js';
import { exportInventoryCsv, exportInventoryJson, importInventory } from './import-inventory.js';
import * as service from './service.js';
import { inventoryUse } from './use.js';

export const inventoryRouter = router(inventoryRoutes, {
  listInventory: (context, { query }) => service.inventoryPage(context, query),
  inventoryHistory: (context, { params }) => service.inventoryHistory(context, params.id),
  createInventoryItem: (context, { body }) => service.createInventoryItem(context, body),
  createInventoryItems: (context, { body }) => service.createInventoryItems(context, body),
  reviseInventoryItem: (context, { params, body }) => service.reviseInventoryItem(context, params.id, body),
  retireInventoryItem: (context, { params, body }) => service.retireInventoryItem(context, params.id, body),
  inventoryUse: (context, { params }) => inventoryUse(context, params.id),
  inventoryJson: (context, { query }) => exportInventoryJson(context, query),
  inventoryCsv: async (context, { query }) =>
    new FileAnswer(null, 'text/csv', await exportInventoryCsv(context, query)),
  importInventory: (context, { body, query }) => importInventory(context, query, body),
});
