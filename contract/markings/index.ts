export * from './markings.js';
export * from './routes.js';
