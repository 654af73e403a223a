import { object, string } from 'yup';
import { amount, orNull, record, uuid, whole, word } from '../fields/index.js';
import { route } from '../routing/index.js';

export const PROGRAM_FORMATS = ['gcode', 'svg', 'dxf'] as const;

/** Which pieces a program is of. */
const programQuery = object({
  /** Numbers and ranges with commas, to burn those again; else all that the jig holds from `from` on. */
  pieces: string()
    .matches(/^\d{1,4}(-\d{1,4})?(,\d{1,4}(-\d{1,4})?)*$/, 'Pieces are numbers and ranges: 3, 7-9.')
    .max(2000)
    .optional(),
  from: whole('First piece', 1, 2000).optional().default(undefined),
  /** Only a part of each piece, to be run again: x, y, width, height, mm from its lower left corner. */
  region: string()
    .matches(
      /^-?\d{1,4}(\.\d{1,3})?(,-?\d{1,4}(\.\d{1,3})?){3}$/,
      'A region is x, y, width and height in mm: 5,4,12,6.',
    )
    .max(60)
    .optional(),
});

const learnt = record({ value: amount(), low: amount(), high: orNull(amount()) });

/** What the measured runs of a machine say of it. */
const learntMotion = record({ accelerationMmPerS2: learnt, overheadS: learnt, runs: amount() });

export const programRoutes = {
  ticketProgram: route({
    method: 'get',
    path: '/api/tickets/:id/program/:format',
    summary: 'The pieces in their places under the recipe, as a program or drawing',
    params: { id: uuid(), format: word(PROGRAM_FORMATS) },
    query: programQuery,
    answer: { media: 'text/plain' },
    heavy: true,
  }),
  learntMotion: route({
    method: 'get',
    path: '/api/machines/:id/motion',
    summary: 'Acceleration and minutes beside the path, as the measured runs of a machine have them',
    params: { id: uuid() },
    answer: record({ learnt: orNull(learntMotion), measuredRuns: amount() }),
    heavy: true,
  }),
} as const;
