import { couponRoutes } from '@unto/contract';
import { router } from '../http/router.js';
import * as burns from './burns.js';
import { askCouponPicture, createCouponPicture } from './pictures.js';
import { createReading } from './readings.js';
import * as service from './service.js';
import { createTestStep } from './step-test.js';
import { getCoupon, listCoupons } from './view.js';
import { couponsElsewhere } from './elsewhere.js';

export const couponRouter = router(couponRoutes, {
  listCoupons: (context, { query }) => listCoupons(context, query),
  createCoupon: (context, { body }) => service.createCoupon(context, body),
  coupon: (context, { params }) => getCoupon(context, params.id),
  couponsElsewhere: (context, { params }) => couponsElsewhere(context, params.id),
  redesignCoupon: (context, { params, body }) => service.redesignCoupon(context, params.id, body),
  markBurnt: (context, { params, body }) => service.markBurnt(context, params.id, body),
  startBurn: (context, { params, body }) => burns.startCouponBurn(context, params.id, body),
  actOnBurn: (context, { params, body }) => burns.actOnCouponBurn(context, params.id, body.action),
  settleBurn: (context, { params, body }) => burns.settleCouponBurn(context, params.id, body),
  takeCouponPicture: (context, { params, body }) => askCouponPicture(context, params.id, body.stage),
  createCouponPicture: (context, { params, body }) => createCouponPicture(context, params.id, body),
  createReading: (context, { params, body }) => createReading(context, params.id, body),
  createTestStep: (context, { params, body }) => createTestStep(context, params.id, body),
});
