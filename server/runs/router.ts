import { runRoutes } from '@unto/contract';
import { FileAnswer } from '../http/file-answer.js';
import { router } from '../http/router.js';
import { Referred } from './around.js';
import { cleaningAdvice } from './cleaning-advice.js';
import { importLedger } from './import.js';
import { ledgerTexts, ledgerChoices, ledgerPage } from './ledger.js';
import { runPictures, trendOfLedger } from './ledger-looks.js';
import { createLedgerFilter, ledgerFilters, retireLedgerFilter } from './ledger-filters.js';
import { ledgerCsv, ledgerJson } from '../formats/ledger-files.js';
import * as service from './service.js';

export const runRouter = router(runRoutes, {
  createRun: (context, { body }) => service.createRun(context, body),
  run: (context, { params }) => service.getRun(context, params.id),
  createCleaning: (context, { params, body }) => service.createCleaning(context, params.id, body),
  cleaningAdvice: (context, { params }) => cleaningAdvice(context, params.id),
  createJudgement: (context, { params, body }) => service.createJudgement(context, params.id, body),
  ledger: (context, { query }) => ledgerPage(context, query),
  ledgerFilters: (context) => ledgerFilters(context),
  createLedgerFilter: (context, { body }) => createLedgerFilter(context, body),
  retireLedgerFilter: (context, { params, body }) => retireLedgerFilter(context, params.id, body),
  ledgerChoices: (context) => ledgerChoices(context),
  ledgerTrend: (context, { query }) => trendOfLedger(context, query),
  runPictures: (context, { query }) => runPictures(context, query),
  ledgerCsv: async (context, { query }) => new FileAnswer(null, 'text/csv', ledgerCsv(ledgerTexts(context, query))),
  ledgerJson: async (context, { query }) => {
    const referred = new Referred();
    const around = { note: referred.note.bind(referred), whole: () => referred.around(context) };
    return new FileAnswer(null, 'application/json', ledgerJson(ledgerTexts(context, query), around));
  },
  importLedger: (context, { body, query }) => importLedger(context, query.format, body),
});
