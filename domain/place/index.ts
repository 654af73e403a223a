export * from './fittings.js';
export * from './work-out-place.js';
