export * from './routes.js';
export * from './sheet.js';
