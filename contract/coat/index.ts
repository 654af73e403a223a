export * from './clocks.js';
export * from './pictures.js';
export * from './readings.js';
export * from './stored.js';
export * from './weighings.js';
