export * from './pictures.js';
export * from './readings.js';
export * from './routes.js';
export * from './stored.js';
export * from './timers.js';
export * from './weighings.js';
