export * from './compound-for-job.js';
export * from './film-from-weighing.js';
export * from './film.js';
export * from './judge-film.js';
export * from './plan-coat.js';
export * from './price.js';
export * from './transfer.js';
