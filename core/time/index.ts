export * from './raster.js';
