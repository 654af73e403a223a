import { boolean, number, object, string } from 'yup';
import { MASS_UNITS } from '@unto/core';
import type { Scale, ScaleReading } from '@unto/contract';
import { askDevice } from './ask.js';

const reading = object({
  value: number().required(),
  unit: string()
    .oneOf([...MASS_UNITS])
    .required(),
  stable: boolean().required(),
});

const ANSWER_WITHIN_MS = 3000;

/** A scale that answers over HTTP on this machine. */
export function httpScale(base: string): Scale {
  return {
    weigh: async () => {
      const response = await askDevice(base, '/scale/weigh', {}, ANSWER_WITHIN_MS);
      return (await reading.validate(await response.json(), { strict: true })) as ScaleReading;
    },
  };
}
