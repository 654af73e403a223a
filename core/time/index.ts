export * from './clock.js';
export * from './raster.js';
