export * from './coupon-study.js';
export * from './painted-piece.js';
