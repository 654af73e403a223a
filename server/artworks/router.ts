import { artworkRoutes } from '@unto/contract';
import { router } from '../http/router.js';
import { ticketProgram } from './program.js';
import * as service from './service.js';

export const artworkRouter = router(artworkRoutes, {
  createArtwork: (context, { params, body }) => service.createArtwork(context, params.id, body),
  artworkDrawing: (context, { params }) => service.artworkDrawing(context, params.id),
  createLayout: (context, { params, body }) => service.createLayout(context, params.id, body),
  ticketProgram: (context, { params, query }) =>
    ticketProgram(context, params.id, params.format as 'gcode' | 'svg' | 'dxf', query),
});
