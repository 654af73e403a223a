export * from './coupon-rules.js';
export * from './picture-entries.js';
export * from './proof.js';
export * from './starting-points.js';
export * from './window-cells.js';
export * from './window-families.js';
