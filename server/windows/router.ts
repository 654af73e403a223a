import { windowRoutes } from '@unto/contract';
import { router } from '../http/router.js';
import { listWindows, pairingWindow } from './service.js';

export const windowRouter = router(windowRoutes, {
  listWindows: (context, { query }) => listWindows(context, query),
  pairingWindow: (context, { query }) => pairingWindow(context, query),
});
