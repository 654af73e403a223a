import { MASS_UNITS } from '@unto/core';
import type { Scale, ScaleReading, ScaleScene } from '@unto/contract';
import { askDevice } from './ask.js';
import { number, boolean, object, string } from 'yup';

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
    async read(scene: ScaleScene): Promise<ScaleReading> {
      const response = await askDevice(base, '/scale/reading', scene, ANSWER_WITHIN_MS);
      return (await reading.validate(await response.json(), { strict: true })) as ScaleReading;
    },
  };
}
