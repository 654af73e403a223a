export * from './openapi.js';
export * from './problems.js';
export * from './routes.js';
