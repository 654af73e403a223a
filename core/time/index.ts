export * from './timer.js';
export * from './raster.js';
export * from './learn-motion.js';
export * from './vector.js';
export * from './calendar-whiles.js';
