export * from './timer.js';
export * from './raster.js';
