import { faultRoutes, type FaultSubject } from '@unto/contract';
import { router } from '../http/router.js';
import type { ProgramFormat } from '../programs/program.js';
import { createFaultFinding } from './findings.js';
import { faultCauses } from './found-causes.js';
import { faultPage } from './page.js';
import { createRework, reworkProgram, runStory } from './reworks.js';
import { createFaultCase, createFaultLook, createFaultTest } from './service.js';

export const faultRouter = router(faultRoutes, {
  faultPage: (context, { params }) => faultPage(context, params.kind as FaultSubject, params.id),
  faultCauses: (context, { query }) => faultCauses(context, query),
  createFaultCase: (context, { body }) => createFaultCase(context, body),
  createFaultLook: (context, { params, body }) => createFaultLook(context, params.id, body),
  createFaultTest: (context, { params, body }) => createFaultTest(context, params.id, body),
  createFaultFinding: (context, { params, body }) => createFaultFinding(context, params.id, body),
  runStory: (context, { params }) => runStory(context, params.id),
  createRework: (context, { params, body }) => createRework(context, params.id, body),
  reworkProgram: (context, { params }) => reworkProgram(context, params.id, params.format as ProgramFormat),
});
