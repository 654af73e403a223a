import { list, uuid, word } from '../fields/index.js';
import { PROGRAM_FORMATS } from '../programs/routes.js';
import { route } from '../routing/index.js';
import {
  createFaultCase,
  createFaultFinding,
  createFaultLook,
  createFaultTest,
  createRework,
  FAULT_SUBJECTS,
  faultCase,
  faultCauses,
  faultCausesQuery,
  faultPage,
  rework,
  runStory,
} from './faults.js';

const params = { id: uuid() };

export const faultRoutes = {
  faultPage: route({
    method: 'get',
    path: '/api/faults/of/:kind/:id',
    summary: 'What the record says of a bad run, coupon or coat, and what was looked for on it',
    params: { kind: word(FAULT_SUBJECTS), id: uuid() },
    answer: faultPage,
    heavy: true,
  }),
  faultCauses: route({
    method: 'get',
    path: '/api/fault-causes',
    summary: 'Causes that were found in this shop, the commonest first',
    params: {},
    query: faultCausesQuery,
    answer: faultCauses,
  }),
  createFaultCase: route({
    method: 'post',
    path: '/api/faults',
    summary: 'Look for the cause of a fault: what it looks like, and on what',
    params: {},
    body: createFaultCase,
    answer: faultCase,
    heavy: true,
  }),
  createFaultLook: route({
    method: 'post',
    path: '/api/faults/:id/looks',
    summary: 'Say what it looks like after all',
    params,
    body: createFaultLook,
    answer: faultCase,
  }),
  createFaultTest: route({
    method: 'post',
    path: '/api/faults/:id/tests',
    summary: 'How a quick test came out',
    params,
    body: createFaultTest,
    answer: faultCase,
  }),
  createFaultFinding: route({
    method: 'post',
    path: '/api/faults/:id/findings',
    summary: 'What it was, what is done with the pieces, and what is changed so that it does not come back',
    params,
    body: createFaultFinding,
    answer: faultCase,
    heavy: true,
  }),
  runStory: route({
    method: 'get',
    path: '/api/runs/:id/story',
    summary: 'What followed on a run: faults looked for, pieces made anew',
    params,
    answer: runStory,
  }),
  createRework: route({
    method: 'post',
    path: '/api/tickets/:id/reworks',
    summary: 'Make pieces of a run anew, whole or in a region',
    params,
    body: createRework,
    answer: list(rework),
  }),
  reworkProgram: route({
    method: 'get',
    path: '/api/reworks/:id/program/:format',
    summary: 'The region of a rework where its piece lies now, as a program or drawing',
    params: { id: uuid(), format: word(PROGRAM_FORMATS) },
    answer: { media: 'text/plain' },
    heavy: true,
  }),
} as const;
