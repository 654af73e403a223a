import { today } from './today.js';
import { route } from '../routing/index.js';

export const todayRoutes = {
  today: route({
    method: 'get',
    path: '/api/today',
    summary: 'What to do next, running timers, what runs short',
    params: {},
    answer: today,
  }),
} as const;
