export * from './columns.js';
export * from './past.js';
export * from './read-old-records.js';
export * from './words.js';
