import { todayRoutes } from '@unto/contract';
import { router } from '../http/router.js';
import { today } from './service.js';

export const todayRouter = router(todayRoutes, { today: (context) => today(context) });
