import { ValidationError, type Schema } from 'yup';
import { createCleaning, createJudgement, createRun, ledgerRecord, type LedgerRecord } from '@unto/contract';

const keptRecord = ledgerRecord.omit([
  ...(['ticketNumber', 'ticketTitle', 'substrateName', 'compoundName', 'headName', 'lensName'] as const),
  'correctedById',
]);

/** What is wrong with a record by itself: it must be one, and what a person entered of it must be what a person may enter. */
export function recordFaults(record: Pick<LedgerRecord, 'cleaning' | 'judgement'>): string[] {
  const { cleaning, judgement } = record;
  const faults = [
    ...faultsBy(keptRecord, record),
    ...faultsBy(createRun, pick(record, createRun)),
    ...(cleaning ? faultsBy(createCleaning, pick(cleaning, createCleaning)) : []),
    ...(judgement ? faultsBy(createJudgement, pick(judgement, createJudgement)) : []),
  ];
  return [...new Set(faults)];
}

function faultsBy(schema: Schema, value: unknown): string[] {
  try {
    schema.validateSync(value, { strict: true, abortEarly: false });
    return [];
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    return error.errors;
  }
}

function pick(record: object, { fields }: { readonly fields: object }): object {
  return Object.fromEntries(Object.entries(record).filter(([key]) => key in fields));
}
