export * from './fittings.js';
export * from './place.js';
