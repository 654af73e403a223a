import { artworkRoutes } from '@unto/contract';
import { router } from '../http/router.js';
import * as service from './service.js';

export const artworkRouter = router(artworkRoutes, {
  createArtwork: (context, { params, body }) => service.createArtwork(context, params.id, body),
  artworkDrawing: (context, { params }) => service.artworkDrawing(context, params.id),
  createLayout: (context, { params, body }) => service.createLayout(context, params.id, body),
});
