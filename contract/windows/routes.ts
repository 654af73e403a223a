import { listWindowsQuery, pairingWindow, windowPage, windowQuery } from './windows.js';
import { route } from '../routing/index.js';

export const windowRoutes = {
  listWindows: route({
    method: 'get',
    path: '/api/windows',
    summary: 'Pairings of compound, substrate, head and lens with scrubbed cells, by cursor',
    params: {},
    query: listWindowsQuery,
    answer: windowPage,
  }),
  pairingWindow: route({
    method: 'get',
    path: '/api/windows/cells',
    summary: 'What the window of a pairing is fitted to; without a compound, of bare metal',
    params: {},
    query: windowQuery,
    answer: pairingWindow,
  }),
} as const;
