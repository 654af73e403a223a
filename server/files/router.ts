import { fileRoutes } from '@unto/contract';
import { FileAnswer } from '../http/file-answer.js';
import { router } from '../http/router.js';
import * as service from './service.js';
import { smallPicture } from './small-picture.js';

export const fileRouter = router(fileRoutes, {
  keepFile: (context, { body, query }) => service.keepFile(context, query.name, body),
  file: async (context, { params }) => {
    const { name, mediaType, content } = await service.readFile(context, params.hash);
    return new FileAnswer(name, mediaType, content, true);
  },
  smallPicture: async (context, { params }) => {
    const { name, content } = await smallPicture(context, params.hash);
    return new FileAnswer(`small-${name}`, 'image/jpeg', content, true);
  },
});
