export * from './find.js';
export * from './routes.js';
