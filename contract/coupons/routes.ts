import { list, page, uuid } from '../fields/index.js';
import { actOnBurn, deviceJob, settleBurn, startBurn } from '../devices/index.js';
import {
  coupon,
  couponSummary,
  createCoupon,
  createReading,
  listCouponsQuery,
  markBurnt,
  redesignCoupon,
  couponsElsewhere,
} from './coupons.js';
import { createCouponPicture, takeCouponPicture } from './pictures.js';
import { createTestStep, keptTestStep } from './step-test.js';
import { route } from '../routing/index.js';

export const couponRoutes = {
  listCoupons: route({
    method: 'get',
    path: '/api/coupons',
    summary: 'Coupons, newest first, by cursor',
    params: {},
    query: listCouponsQuery,
    answer: page(couponSummary),
  }),
  createCoupon: route({
    method: 'post',
    path: '/api/coupons',
    summary: 'Keep a coupon design',
    params: {},
    body: createCoupon,
    answer: coupon,
  }),
  coupon: route({
    method: 'get',
    path: '/api/coupons/:id',
    summary: 'A coupon with its readings',
    params: { id: uuid() },
    answer: coupon,
  }),
  couponsElsewhere: route({
    method: 'get',
    path: '/api/tickets/:id/coupons-elsewhere',
    summary:
      'What held of a ticket’s compound under other heads and lenses of its beam, or on other parts of its family',
    params: { id: uuid() },
    answer: list(couponsElsewhere),
  }),
  redesignCoupon: route({
    method: 'put',
    path: '/api/coupons/:id',
    summary: 'Redesign a coupon that is not burnt',
    params: { id: uuid() },
    body: redesignCoupon,
    answer: coupon,
  }),
  markBurnt: route({
    method: 'put',
    path: '/api/coupons/:id/burnt',
    summary: 'Say that a coupon was burnt',
    params: { id: uuid() },
    body: markBurnt,
    answer: coupon,
  }),
  startBurn: route({
    method: 'post',
    path: '/api/coupons/:id/burns',
    summary: 'Have a coupon’s program sent to the controller',
    params: { id: uuid() },
    body: startBurn,
    answer: coupon,
  }),
  actOnBurn: route({
    method: 'put',
    path: '/api/burns/:id/act',
    summary: 'Ask for a run to pause, go on or stop',
    params: { id: uuid() },
    body: actOnBurn,
    answer: coupon,
  }),
  settleBurn: route({
    method: 'put',
    path: '/api/burns/:id/settle',
    summary: 'Say what was found of a run that broke off, or have its other cells burnt',
    params: { id: uuid() },
    body: settleBurn,
    answer: coupon,
  }),
  takeCouponPicture: route({
    method: 'post',
    path: '/api/coupons/:id/camera',
    summary: 'Ask for a picture of a coupon on its card, to be kept as a file',
    params: { id: uuid() },
    body: takeCouponPicture,
    answer: deviceJob,
  }),
  createCouponPicture: route({
    method: 'post',
    path: '/api/coupons/:id/pictures',
    summary: 'Keep what a picture of a coupon tells of its cells',
    params: { id: uuid() },
    body: createCouponPicture,
    // Ten figures for each of as many cells as a coupon can have.
    bodyBytes: 3_000_000,
    answer: coupon,
  }),
  createReading: route({
    method: 'post',
    path: '/api/coupons/:id/readings',
    summary: 'Enter outcomes of cells',
    params: { id: uuid() },
    body: createReading,
    answer: coupon,
  }),
  createTestStep: route({
    method: 'post',
    path: '/api/tickets/:id/test-steps',
    summary: 'Keep a tiny cell fired on the piece itself',
    params: { id: uuid() },
    body: createTestStep,
    answer: list(keptTestStep),
  }),
} as const;
