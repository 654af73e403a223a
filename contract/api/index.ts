export * from './file-schemas.js';
export * from './openapi.js';
export * from './problems.js';
export * from './routes.js';
