import { object } from 'yup';
import { text, uuid } from '../fields/index.js';
import { cardQuery } from '../devices/index.js';
import { route } from '../routing/index.js';

export const paperRoutes = {
  couponSheet: route({
    method: 'get',
    path: '/api/coupons/:id/sheet.pdf',
    summary: 'Working sheet of a coupon',
    params: { id: uuid() },
    answer: { media: 'application/pdf' },
  }),
  recipeLabel: route({
    method: 'get',
    path: '/api/recipes/:id/label.pdf',
    summary: 'Label of a recipe’s swatch, with a code that opens it',
    params: { id: uuid() },
    query: object({ at: text('Where the workshop is reached') }),
    answer: { media: 'application/pdf' },
  }),
  recipeCard: route({
    method: 'get',
    path: '/api/recipes/:id/card.pdf',
    summary: 'Card of a recipe to hang at the bench, with a code that opens it',
    params: { id: uuid() },
    query: object({ at: text('Where the workshop is reached') }),
    answer: { media: 'application/pdf' },
  }),
  careCard: route({
    method: 'get',
    path: '/api/tickets/:id/care-card.pdf',
    summary: 'How the pieces are to be kept, from what was tested on them',
    params: { id: uuid() },
    answer: { media: 'application/pdf' },
  }),
  trayLabels: route({
    method: 'get',
    path: '/api/tickets/:id/trays.pdf',
    summary: 'Labels for the trays of a ticket that dry',
    params: { id: uuid() },
    answer: { media: 'application/pdf' },
  }),
  cardPdf: route({
    method: 'get',
    path: '/api/card.pdf',
    summary: 'Reference card to print',
    params: {},
    query: cardQuery,
    answer: { media: 'application/pdf' },
  }),
  stepScalePdf: route({
    method: 'get',
    path: '/api/step-scale.pdf',
    summary: 'Step scale to print, for reading coupons by eye',
    params: {},
    answer: { media: 'application/pdf' },
  }),
  cardSvg: route({
    method: 'get',
    path: '/api/card.svg',
    summary: 'Reference card',
    params: {},
    query: cardQuery,
    answer: { media: 'image/svg+xml' },
  }),
} as const;
