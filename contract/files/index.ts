export * from './files.js';
