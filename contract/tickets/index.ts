export * from './routes.js';
export * from './tickets.js';
