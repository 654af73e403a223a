import { object, string } from 'yup';
import { list, uuid, whole, word } from '../fields/index.js';
import { route } from '../routing/index.js';
import { artwork, artworkDrawing, createArtwork, createLayout, layout } from './artworks.js';

const PROGRAM_FORMATS = ['gcode', 'svg', 'dxf'] as const;

/** Which pieces a program is of. */
const programQuery = object({
  /** Numbers and ranges with commas, to burn those again; else all that the jig holds from `from` on. */
  pieces: string()
    .matches(/^\d{1,4}(-\d{1,4})?(,\d{1,4}(-\d{1,4})?)*$/, 'Pieces are numbers and ranges: 3, 7-9.')
    .max(2000)
    .optional(),
  from: whole('First piece', 1, 2000).optional().default(undefined),
});

export const artworkRoutes = {
  createArtwork: route({
    method: 'post',
    path: '/api/tickets/:id/artworks',
    summary: 'Bring a kept file as artwork: it is read, measured and drawn here',
    params: { id: uuid() },
    body: createArtwork,
    answer: artwork,
    heavy: true,
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
  }),
  ticketProgram: route({
    method: 'get',
    path: '/api/tickets/:id/program/:format',
    summary: 'The pieces in their places under the recipe, as a program or drawing',
    params: { id: uuid(), format: word(PROGRAM_FORMATS) },
    query: programQuery,
    answer: { media: 'text/plain' },
    heavy: true,
  }),
} as const;
