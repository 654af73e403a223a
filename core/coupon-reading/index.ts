export * from './find-coupon.js';
export * from './measure-cells.js';
export * from './propose-outcome.js';
export * from './read-code.js';
export * from './read-coupon.js';
export * from './step-test.js';
export * from './read-piece.js';
