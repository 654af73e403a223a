export * from './convert.js';
export * from './gauge.js';
export * from './length.js';
export * from './mass.js';
export * from './monotone-cubic.js';
export * from './power.js';
export * from './registry.js';
export * from './speed.js';
