export * from './artworks.js';
export * from './routes.js';
