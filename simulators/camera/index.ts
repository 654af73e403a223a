export * from './coupon-photo.js';
export * from './decoded.js';
