export * from './heat-index.js';
export * from './speed-exponent.js';
