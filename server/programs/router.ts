import { programRoutes } from '@unto/contract';
import { router } from '../http/router.js';
import { learntMotionOf } from './learnt-motion.js';
import { ticketProgram } from './program.js';

export const programRouter = router(programRoutes, {
  ticketProgram: (context, { params, query }) =>
    ticketProgram(context, params.id, params.format as 'gcode' | 'svg' | 'dxf', query),
  learntMotion: (context, { params }) => learntMotionOf(context, params.id),
});
