export * from './identify.js';
export * from './routes.js';
