import { list, uuid } from '../fields/index.js';
import { route } from '../routing/index.js';
import { artwork, artworkDrawing, createArtwork, createLayout, layout } from './artworks.js';

export const artworkRoutes = {
  createArtwork: route({
    method: 'post',
    path: '/api/tickets/:id/artworks',
    summary: 'Bring a kept file as artwork: it is read, measured and drawn here',
    params: { id: uuid() },
    body: createArtwork,
    answer: artwork,
    heavy: true,
    patient: true,
  }),
  artworkDrawing: route({
    method: 'get',
    path: '/api/artworks/:id/drawing',
    summary: 'What an artwork draws, as paths of our own geometry',
    params: { id: uuid() },
    answer: artworkDrawing,
  }),
  createLayout: route({
    method: 'post',
    path: '/api/tickets/:id/layouts',
    summary: 'Say how a piece is marked: the artwork and the texts on it',
    params: { id: uuid() },
    body: createLayout,
    answer: list(layout),
    heavy: true,
    patient: true,
  }),
} as const;
