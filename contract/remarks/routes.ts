import { list, uuid } from '../fields/index.js';
import { createRemark, listRemarksQuery, remark, retireRemark } from './remarks.js';
import { route } from '../routing/index.js';

export const remarkRoutes = {
  listRemarks: route({
    method: 'get',
    path: '/api/remarks',
    summary: 'Notes and pictures beside a ticket and its runs, oldest first; those taken out of sight are left out',
    params: {},
    query: listRemarksQuery,
    answer: list(remark),
  }),
  createRemark: route({
    method: 'post',
    path: '/api/remarks',
    summary: 'Put a note or a picture beside a ticket or a run',
    params: {},
    body: createRemark,
    answer: remark,
  }),
  retireRemark: route({
    method: 'put',
    path: '/api/remarks/:id/retired',
    summary: 'Take a note or a picture out of sight, or back',
    params: { id: uuid() },
    body: retireRemark,
    answer: remark,
  }),
} as const;
