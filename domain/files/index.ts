export * from './file-kind.js';
