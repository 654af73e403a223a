export * from './trays.js';
export * from './routes.js';
