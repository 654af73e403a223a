export * from './fittings.js';
export * from './place.js';
export * from './work-out-place.js';
