export * from './camera.js';
export * from './card.js';
export * from './controller.js';
export * from './jobs.js';
export * from './routes.js';
export * from './scale.js';
export * from './scenes.js';
