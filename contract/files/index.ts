export * from './files.js';
export * from './routes.js';
