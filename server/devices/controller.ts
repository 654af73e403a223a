import { array, boolean, number, object, string } from 'yup';
import { CONTROLLER_STATES, type Controller, type ControllerState } from '@unto/contract';
import { askDevice } from './ask.js';

const state = object({
  program: string().defined(),
  state: string()
    .oneOf([...CONTROLLER_STATES])
    .required(),
  elapsedS: number().required(),
  totalS: number().required(),
  cellsDone: array().of(number().integer().required()).required(),
  cell: number().integer().nullable().defined(),
  message: string().defined(),
  air: boolean().nullable().defined(),
  extraction: boolean().nullable().defined(),
});

/** A program is given this long, everything else that long; both well inside the lease of a burn. */
const TAKE_WITHIN_MS = 6000;
const ANSWER_WITHIN_MS = 2500;

/** A controller that answers over HTTP on this machine. */
export function httpController(base: string): Controller {
  const ask = async (path: string, body: unknown, withinMs: number) => {
    const response = await askDevice(base, `/controller/${path}`, body, withinMs);
    return (await state.validate(await response.json(), { strict: true })) as ControllerState;
  };
  return {
    send: (program) => ask('program', program, TAKE_WITHIN_MS),
    state: () => ask('state', {}, ANSWER_WITHIN_MS),
    pause: () => ask('pause', {}, ANSWER_WITHIN_MS),
    resume: () => ask('resume', {}, ANSWER_WITHIN_MS),
    stop: () => ask('stop', {}, ANSWER_WITHIN_MS),
  };
}
