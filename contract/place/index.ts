export * from './fittings.js';
export * from './place.js';
export * from './routes.js';
