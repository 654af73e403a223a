import { questionRoutes } from '@unto/contract';
import { router } from '../http/router.js';
import { endQuestion, stationQuestions } from './service.js';

export const questionRouter = router(questionRoutes, {
  stationQuestions: (context) => stationQuestions(context),
  endQuestion: (context, { params, body }) => endQuestion(context, params.id, body),
});
