import { keptHash } from '../fields/index.js';
import { keepFileQuery, keptFile, MAX_FILE_BYTES } from './files.js';
import { route } from '../routing/index.js';

export const fileRoutes = {
  keepFile: route({
    method: 'post',
    path: '/api/files',
    summary: 'Keep a file (PDF, PNG, JPEG, or artwork as SVG, DXF, G-code) under the hash of its content',
    params: {},
    query: keepFileQuery,
    answer: keptFile,
    takesFile: MAX_FILE_BYTES,
  }),
  file: route({
    method: 'get',
    path: '/api/files/:hash',
    summary: 'A kept file',
    params: { hash: keptHash('File') },
    answer: { media: 'application/octet-stream' },
  }),
  smallPicture: route({
    method: 'get',
    path: '/api/files/:hash/small',
    summary: 'A kept picture, small, for lists of many',
    params: { hash: keptHash('File') },
    answer: { media: 'application/octet-stream' },
  }),
} as const;
