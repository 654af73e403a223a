import { array, number, object, string } from 'yup';
import { JOB_STATES, type Controller, type ControllerReport } from '@unto/contract';
import { askDevice } from './ask.js';

const report = object({
  id: string().defined(),
  state: string()
    .oneOf([...JOB_STATES])
    .required(),
  elapsedS: number().required(),
  totalS: number().required(),
  cellsDone: array().of(number().integer().required()).required(),
  cell: number().integer().nullable().defined(),
  message: string().defined(),
});

const ANSWER_WITHIN_MS = 20_000;
const REPORT_WITHIN_MS = 3000;

/** A controller that answers over HTTP on this machine. */
export function httpController(base: string): Controller {
  const ask = async (path: string, body: unknown, withinMs: number) => {
    const response = await askDevice(base, path, body, withinMs);
    return (await report.validate(await response.json(), { strict: true })) as ControllerReport;
  };
  return {
    send: (job) => ask('/controller/program', job, ANSWER_WITHIN_MS),
    report: () => ask('/controller/report', {}, REPORT_WITHIN_MS),
    act: (action) => ask('/controller/act', { action }, REPORT_WITHIN_MS),
  };
}
