export * from './coupons.js';
export * from './pictures.js';
export * from './routes.js';
export * from './step-test.js';
