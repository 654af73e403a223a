import { substrateSheetRoutes } from '@unto/contract';
import { nothingUnder } from '../db/context.js';
import { FileAnswer } from '../http/file-answer.js';
import { router } from '../http/router.js';
import { swatchOf } from '../paper/swatch.js';
import { recipeById } from '../recipes/views.js';
import { substrateSheet } from './service.js';
import { substrateSheetPdf } from './sheet-pdf.js';

export const substrateSheetRouter = router(substrateSheetRoutes, {
  substrateSheet: (context, { params }) => substrateSheet(context, params.id),
  substrateSheetPdf: (context, { params, query }) => substrateSheetPdf(context, params.id, query.at),
  recipeSwatch: async (context, { params }) => {
    const swatch = await swatchOf(context, await recipeById(context, params.id));
    if (!swatch) throw nothingUnder(`${params.id}: no cell near its setting was pictured`);
    return new FileAnswer(null, 'image/svg+xml', swatch.svg);
  },
});
