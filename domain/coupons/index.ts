export * from './coupon-rules.js';
export * from './picture-entries.js';
export * from './window-cells.js';
