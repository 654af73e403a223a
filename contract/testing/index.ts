export * from './hostile.js';
