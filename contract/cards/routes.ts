import { list } from '../fields/index.js';
import { route } from '../routing/index.js';
import { card, createCard } from './cards.js';

export const cardRoutes = {
  listCards: route({
    method: 'get',
    path: '/api/cards',
    summary: 'What is known of the prints of the reference cards, the newest of each size',
    params: {},
    answer: list(card),
  }),
  createCard: route({
    method: 'post',
    path: '/api/cards',
    summary: 'Keep what a reference card’s print throws back',
    params: {},
    body: createCard,
    answer: list(card),
  }),
} as const;
