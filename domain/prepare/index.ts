export * from './sheet-layout.js';
