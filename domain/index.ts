export * from './coat/index.js';
export * from './coupons/index.js';
export * from './equipment/index.js';
export * from './files/index.js';
export * from './place/index.js';
export * from './prepare/index.js';
export * from './revisions/index.js';
