import { workshopRoutes } from '@unto/contract';
import { router } from '../http/router.js';
import * as service from './service.js';

export const workshopRouter = router(workshopRoutes, {
  workshop: (context) => service.workshop(context),
  changeWorkshop: (context, { body }) => service.changeWorkshop(context, body),
  listOperators: (context) => service.listOperators(context),
  createOperator: (context, { body }) => service.createOperator(context, body),
  changeOperator: (context, { params, body }) => service.changeOperator(context, params.id, body),
});
