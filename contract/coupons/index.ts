export * from './climb.js';
export * from './coupons.js';
export * from './pictures.js';
