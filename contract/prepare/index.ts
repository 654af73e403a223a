export * from './sheet.js';
