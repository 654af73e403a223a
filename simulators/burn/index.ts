export * from './read-program.js';
export * from './run-times.js';
export * from './burnt-blank.js';
