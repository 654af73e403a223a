export * from './counted.js';
