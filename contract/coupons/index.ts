export * from './coupons.js';
