export * from './routes.js';
export * from './workshop.js';
