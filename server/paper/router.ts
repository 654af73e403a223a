import { paperRoutes } from '@unto/contract';
import { cardSvg } from '@unto/core';
import { FileAnswer } from '../http/file-answer.js';
import { router } from '../http/router.js';
import { recipeCard } from './recipe-card.js';
import { recipeLabel } from './recipe-label.js';
import { careCard } from './care-card.js';
import { trayLabels } from './tray-labels.js';
import { cardPdf, couponSheet, stepScalePdf } from './papers.js';

export const paperRouter = router(paperRoutes, {
  couponSheet: (context, { params }) => couponSheet(context, params.id),
  recipeLabel: (context, { params, query }) => recipeLabel(context, params.id, query.at),
  recipeCard: (context, { params, query }) => recipeCard(context, params.id, query.at),
  careCard: (context, { params }) => careCard(context, params.id),
  trayLabels: (context, { params }) => trayLabels(context, params.id),
  cardPdf: (_context, { query }) => cardPdf(query.size),
  stepScalePdf: () => stepScalePdf(),
  cardSvg: async (_context, { query }) => new FileAnswer(null, 'image/svg+xml', cardSvg(query.size)),
});
