import { programRoutes } from '@unto/contract';
import { fault } from '../errors/api-error.js';
import { router } from '../http/router.js';
import { learntMotionOf } from './learnt-motion.js';
import { ticketProgram } from './program.js';

export const programRouter = router(programRoutes, {
  ticketProgram: (context, { params, query: { region, ...asked } }) =>
    ticketProgram(context, params.id, params.format as 'gcode' | 'svg' | 'dxf', { ...asked, ...regionOf(region) }),
  learntMotion: (context, { params }) => learntMotionOf(context, params.id),
});

/** “5,4,12,6” as a part of a piece. */
function regionOf(text: string | undefined) {
  if (!text) return {};
  const [xMm, yMm, widthMm, heightMm] = text.split(',').map(Number) as [number, number, number, number];
  if (!(widthMm > 0 && heightMm > 0)) throw fault('region', 'Width and height of a region are above 0.');
  return { region: { xMm, yMm, widthMm, heightMm } };
}
